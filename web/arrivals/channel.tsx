import { FolderDown, Mail, Upload } from 'lucide-react';

const kinds = {
  email: { icon: Mail, word: 'by mail' },
  folder: { icon: FolderDown, word: 'from the scan folder' },
  upload: { icon: Upload, word: 'added in the browser' },
} as const;

const kindOf = (channel: string) => kinds[channel as keyof typeof kinds] ?? kinds.upload;
/** How an arrival came, in words: "by mail". */
export const channelWord = (channel: string): string => kindOf(channel).word;

export function ChannelIcon({ channel }: { channel: string }) {
  const { icon: Icon, word } = kindOf(channel);
  return (
    <span title={word} className="shrink-0 text-accent">
      <Icon size={15} aria-label={word} />
    </span>
  );
}
