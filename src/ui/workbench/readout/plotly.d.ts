declare module "plotly.js-cartesian-dist-min" {
  interface PlotlyStatic {
    react(element: HTMLElement, data: object[], layout: object, config: object): Promise<void>;
    purge(element: HTMLElement): void;
  }
  const Plotly: PlotlyStatic;
  export default Plotly;
}
