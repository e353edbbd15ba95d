import type { LucideIcon } from 'lucide-react';

/** A button that shows a picture; its name is read aloud, its title shown when it is pointed at. */
export function IconButton({
  icon: Icon,
  name,
  title = name,
  disabled,
  onClick,
}: {
  icon: LucideIcon;
  name: string;
  title?: string;
  disabled?: boolean;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      className="button px-2"
      disabled={disabled}
      onClick={onClick}
      aria-label={name}
      title={disabled ? undefined : title}
    >
      <Icon size={15} aria-hidden />
    </button>
  );
}
