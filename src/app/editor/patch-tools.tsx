import clsx from 'clsx';
import {
  AlignHorizontalDistributeCenter,
  Dices,
  Focus,
  Map as MapIcon,
  Maximize,
  Plus,
  Spline,
} from 'lucide-react';
import { memo } from 'react';
import { CommandButton } from '../commands/command-button';
import { patchLook } from '../data/patch-look';

/** Switches of how the patch is drawn. */
const looks = [
  ['focus', Focus],
  ['bundles', Spline],
  ['map', MapIcon],
] as const;

const look = 'btn btn-sm border edge bg-base-200 px-2';

/** Buttons of the patch, over its upper left corner. */
export const PatchTools = memo(function PatchTools({ isTidying }: { isTidying: boolean }) {
  const drawn = patchLook();
  return (
    <div className="absolute top-2 left-2 flex gap-1">
      <CommandButton id="patch.add" icon={Plus} look={look} label="Add" shows="always" shortcut="/" />
      <CommandButton
        id="patch.tidy"
        icon={AlignHorizontalDistributeCenter}
        look={look}
        shows="always"
        isBusy={isTidying}
      />
      <CommandButton id="patch.fit" icon={Maximize} look={look} />
      <CommandButton id="view.variations" icon={Dices} look={look} label="Vary" shows="always" />
      {looks.map(([key, icon]) => (
        <CommandButton
          key={key}
          id={`view.${key}`}
          icon={icon}
          look={look}
          isOn={drawn[key]}
          className={clsx(drawn[key] && 'text-primary')}
        />
      ))}
    </div>
  );
});
