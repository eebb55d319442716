import { PlansPage } from "@/ui/plans/PlansPage";

export default function Home() {
  return <PlansPage />;
}
