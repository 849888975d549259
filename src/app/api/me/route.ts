import { currentActor } from '@/access';
import { answering } from '@/http/answers';
import { workshopZone } from '@/ui/dates';

export const dynamic = 'force-dynamic';

/** Who works here, for which shop and in which zone. */
export function GET() {
  return answering(async () => {
    const { personName, shopName, town } = await currentActor();
    return Response.json({ personName, shopName, town, zone: workshopZone() });
  });
}
