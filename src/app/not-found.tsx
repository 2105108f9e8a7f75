import { Notice } from '@/ui/Notice';

export default function NotFound() {
  return (
    <Notice
      title="There is nothing at this address"
      text="The address may be mistyped. Your designs are on the shelf."
      action={{ label: 'Go to the shelf', href: '/' }}
    />
  );
}
