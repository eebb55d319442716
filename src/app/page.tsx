import { FirstLook } from "@/ui/plans/FirstLook";
import { PlansPage } from "@/ui/plans/PlansPage";

export default function Home() {
  return <PlansPage first={<FirstLook />} />;
}
