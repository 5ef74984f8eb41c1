import { ProjectsPage } from '@/studio/projects/ProjectsPage';
import { app } from '@/server/application';
import { cards } from '@/server/cards';

export const dynamic = 'force-dynamic';

/** The list comes with the page; where it can’t be read now, the page asks for it and says why. */
export default async function Page() {
  const first = await app()
    .then((own) => cards(own, false))
    .catch(() => null);
  return <ProjectsPage first={first} />;
}
