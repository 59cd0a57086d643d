import { Printer } from 'lucide-react';
import { Button } from '../../ui';
import { translator } from '../../i18n';

export default function PrintButton({ language }: { language: string }) {
  return (
    <Button onClick={() => window.print()}>
      <Printer size={14} aria-hidden />
      {translator(language)('order.print')}
    </Button>
  );
}
