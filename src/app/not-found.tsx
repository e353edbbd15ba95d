import { Notice } from '@/ui/parts/notice';

export default function NotFound() {
  return <Notice title="There is no such page" />;
}
