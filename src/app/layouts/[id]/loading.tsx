import { Notice } from '@/ui/parts/notice';

export default function Loading() {
  return <Notice title="Opening …" />;
}
