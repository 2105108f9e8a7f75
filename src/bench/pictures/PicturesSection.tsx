'use client';
import { picturesUsed } from '@/core/edit/picture';
import { gatherPictures } from '@/core/output/gather';
import { Button } from '@/ui/Button';
import { FileButton } from '@/ui/FileButton';
import { Section } from '@/ui/Section';
import { download } from '@/ui/download';
import { fileName } from '@/core/output/fileName';
import { count } from '../session/commandDef';
import { usePlacedDesign, useSession } from '../session/context';
import { PICTURE_FILES, relink } from '../commands/pictures';

/** All pictures of the design: which objects show them, other files in their place, and all files together. */
export function PicturesSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const used = picturesUsed(design);
  const pictures = (design.pictures ?? []).filter((p) => used.has(p.id));
  if (!pictures.length) return null;
  const gather = async () => {
    const { zip, missing } = await gatherPictures(pictures, (file) => session.engines.env.asset(`pictures/${file}`));
    download(zip, fileName(`${design.name} pictures`, 'zip'), 'application/zip');
    session.say(
      missing.length
        ? `Gathered ${count(pictures.length - missing.length, 'picture')}; ${missing.join(', ')} could not be found.`
        : `Gathered ${count(pictures.length, 'picture')} in one file.`,
      missing.length ? 'warn' : 'plain',
    );
  };
  return (
    <Section title="Pictures" action={<Button onClick={() => void gather()}>Gather</Button>}>
      <ul className="m-0 grid list-none gap-2 p-0">
        {pictures.map((p) => (
          <li key={p.id} className="flex items-center gap-2">
            <span className="min-w-0 flex-1">
              <span title={p.name} className="block truncate">
                {p.name}
              </span>
              <span className="block text-[12px] text-faint">
                {p.width} × {p.height} px, used {used.get(p.id) === 1 ? 'once' : `${used.get(p.id)} times`}
              </span>
            </span>
            <FileButton
              word="Relink"
              label={`Relink ${p.name}`}
              accept={PICTURE_FILES}
              onFile={(f) => void relink(session, p.id, f)}
            />
          </li>
        ))}
      </ul>
    </Section>
  );
}
