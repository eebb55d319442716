import { cleanText, kernelName, type BlockDevice } from "./blockDevice";
import { kindOfDevice, type DeviceKind } from "./kindOfDevice";

/** A device of a list, once, with what it lies on and what lies on it. */
export interface Node {
  /** The kernel's name, by which it is known. */
  name: string;
  /** As it is listed: of a logical volume "group-volume". */
  listed: string;
  device: BlockDevice;
  kind: DeviceKind;
  parents: Set<Node>;
  children: Set<Node>;
}

/** All devices of a list by the kernel's names. */
export type DeviceGraph = ReadonlyMap<string, Node>;

const nameOf = (device: BlockDevice): string => {
  const kernel = cleanText(device.kname);
  return kernel ? kernelName({ name: kernel }) : kernelName(device);
};

/** The disk that a partition lies on, by the kernel's way of naming; for lists that do not say it. */
export function diskOfPartition(name: string): string | null {
  return /^(nvme\d+n\d+|mmcblk\d+)p\d+$/.exec(name)?.[1] ?? /^((?:sd|hd|vd|xvd)[a-z]+)\d+$/.exec(name)?.[1] ?? null;
}

/**
 * The devices of a list as a graph: what lies on several others is listed again under each of them.
 *
 * @example graphOf(list).get("dm-0").parents.map(({ name }) => name) // ["md1", "md2", "md3"]
 */
export function graphOf(devices: readonly BlockDevice[]): DeviceGraph {
  const nodes = new Map<string, Node>();
  const below: [string, string][] = [];
  const queue = [...devices].reverse();
  for (let device = queue.pop(); device; device = queue.pop()) {
    const name = nameOf(device);
    if (!nodes.has(name))
      nodes.set(name, {
        name,
        listed: device.name.trim(),
        device,
        kind: kindOfDevice({ ...device, name }),
        parents: new Set(),
        children: new Set(),
      });
    const parent = device.pkname ? kernelName({ name: device.pkname }) : diskOfPartition(name);
    if (parent) below.push([parent, name]);
    for (const child of [...(device.children ?? [])].reverse()) {
      below.push([name, nameOf(child)]);
      queue.push(child);
    }
  }
  for (const [parent, child] of below) {
    const [lower, upper] = [nodes.get(parent), nodes.get(child)];
    if (!lower || !upper || lower === upper) continue;
    lower.children.add(upper);
    upper.parents.add(lower);
  }
  return nodes;
}

/** All that can be reached from a device, itself first, each once, in order. */
function reached(node: Node, next: (node: Node) => Iterable<Node>): Node[] {
  const seen = new Set([node]);
  // What is put into a set while it is gone through is gone through too.
  for (const each of seen) for (const other of next(each)) seen.add(other);
  return [...seen];
}

/** Everything that lies on a device, itself included. */
export const standingOn = (node: Node): Node[] => reached(node, ({ children }) => children);

/**
 * What a device lies on, down to those at which `ends` says so.
 *
 * @returns `grounds`: these; `between`: what is above them, the device itself included
 */
export function groundsOf(node: Node, ends: (node: Node) => boolean): { grounds: Node[]; between: Node[] } {
  const all = reached(node, (each) => (ends(each) ? [] : each.parents));
  return { grounds: all.filter(ends), between: all.filter((each) => !ends(each)) };
}
