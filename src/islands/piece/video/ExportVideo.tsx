import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Download from 'lucide-react/icons/download';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { AnswerOf } from '../../../contract/contract.ts';
import { videoFormats, getVideoFile, listVideoExports, startVideoExports, cancelVideoExport, type VideoFormatName } from '../../../contract/video-contracts.ts';
import { measureProblems } from '../../../core/preflight/measure-problems.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import { PackageLink } from '../PackageLink.tsx';
import type { PieceStore } from '../piece-store.ts';
import type { Cuts } from '../use-cuts.ts';

interface ExportProps {
  readonly brand: string;
  readonly pieceId: string;
  readonly store: PieceStore;
  readonly cuts: Cuts;
}

type VideoExport = AnswerOf<typeof listVideoExports>['exports'][number];

const formatNames: Readonly<Record<VideoFormatName, string>> = { mp4: 'MP4, H.264 and AAC', webm: 'WebM, VP9 and Opus', webp: 'WebP, the first 6 s, moving', gif: 'GIF, the first 6 s, moving', jpg: 'JPEG, the cover' };
const ASK_AGAIN_MS = 1_000;
const isUnderWay = ({ state }: VideoExport): boolean => state === 'waiting' || state === 'running';

/** Cuts of a video as files: chosen, made one after the other with progress, and downloaded. */
export function ExportVideo(props: ExportProps) {
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>
        <Download aria-hidden className="size-4" />
        Download
      </AriaButton>
      <Popover className="shadow-float flex max-h-[70vh] w-[26rem] flex-col rounded-md border border-line bg-panel" placement="bottom end">
        <Dialog aria-label="Download the video" className="flex min-h-0 flex-col outline-none">
          <VideoExports {...props} />
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function VideoExports({ brand, pieceId, store, cuts }: ExportProps) {
  const client = useQueryClient();
  const [format, setFormat] = useState<VideoFormatName>('mp4');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(cuts.list.slice(0, 1).map(({ key }) => key)));
  const queryKey = ['video-exports', brand, pieceId];
  const videos = useQuery({ queryKey, queryFn: () => call(listVideoExports, { params: { brand, piece: pieceId } }), refetchInterval: ({ state }) => (state.data?.exports.some(isUnderWay) ? ASK_AGAIN_MS : false) });
  const start = useMutation({
    mutationFn: async () => {
      // What is made is what is saved: unsaved words would be missing from it.
      await store.flush();
      if (store.hasUnsaved()) throw new Error('The latest changes are not saved yet, so they cannot be in the file. Try again in a moment.');
      return call(startVideoExports, { params: { brand, piece: pieceId }, body: { format, cuts: cuts.list.filter(({ key }) => chosen.has(key)).map(({ ref }) => ({ channelId: ref.channelId, placement: ref.placement })) } });
    },
    onSuccess: (answer) => client.setQueryData(queryKey, answer),
    onError: (error) => toast('problem', error.message),
  });
  const stop = useMutation({ mutationFn: (video: string) => call(cancelVideoExport, { params: { brand, piece: pieceId, export: video } }), onSettled: () => client.invalidateQueries({ queryKey }) });
  const toggle = (key: string): void => setChosen((now) => new Set(now.has(key) ? [...now].filter((each) => each !== key) : [...now, key]));
  const nameOf = ({ channelId, placement }: VideoExport): string => {
    const cut = cuts.list.find(({ ref }) => ref.channelId === channelId && ref.placement === placement);
    return cut ? `${cut.sheet.name} ${cut.placement.name}` : placement;
  };
  return (
    <>
      <div className="space-y-3 border-b border-line p-4">
        <fieldset>
          <legend className="mb-1.5 text-sm font-semibold">Which cuts</legend>
          <div className="grid grid-cols-2 gap-x-3 gap-y-1">
            {cuts.list.map(({ key, sheet, placement }) => (
              <label key={key} className="flex items-center gap-2 text-sm">
                <input type="checkbox" checked={chosen.has(key)} onChange={() => toggle(key)} className="accent-house" />
                <span className="truncate">
                  {sheet.name} {placement.name}
                </span>
              </label>
            ))}
          </div>
        </fieldset>
        <div className="flex items-center gap-2">
          <select aria-label="Format" value={format} onChange={(event) => setFormat(event.target.value as VideoFormatName)} className="h-9 rounded-md border border-line bg-panel px-2 text-sm">
            {videoFormats.map((each) => (
              <option key={each} value={each}>
                {formatNames[each]}
              </option>
            ))}
          </select>
          <Button look="primary" className="ml-auto" disabled={chosen.size === 0 || start.isPending} onClick={() => start.mutate()}>
            {chosen.size === 1 ? (format === 'jpg' ? 'Make the cover' : 'Make the video') : `Make ${chosen.size} ${format === 'jpg' ? 'covers' : 'videos'}`}
          </Button>
        </div>
        <PackageLink brand={brand} pieceId={pieceId} store={store} />
      </div>
      <ul aria-label="Videos" className="min-h-0 overflow-auto">
        {videos.data?.exports.map((video) => (
          <li key={video.id} data-export={video.state} className="flex items-center gap-3 border-b border-line px-4 py-2 text-sm last:border-b-0">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-medium">{nameOf(video)}</span>
              <VideoLine video={video} />
            </span>
            {isUnderWay(video) && (
              <Button size="small" onClick={() => stop.mutate(video.id)}>
                Cancel
              </Button>
            )}
            {video.state === 'done' && (
              <a href={addressOf(getVideoFile, { brand, piece: pieceId, export: video.id })} download className={buttonClasses('plain', 'small')}>
                Save {video.format.toUpperCase()}
              </a>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

function VideoLine({ video }: { readonly video: VideoExport }) {
  switch (video.state) {
    case 'waiting':
      return <span className="text-xs text-quiet">waits its turn</span>;
    case 'running':
      return (
        <span className="flex items-center gap-2 text-xs text-quiet tabular-nums">
          <progress aria-label="Being made" max={1} value={video.share} className="h-1.5 w-32 accent-house" />
          {video.leftMs === null ? 'being painted' : `${Math.max(1, Math.round(video.leftMs / 1000))} s left`}
        </span>
      );
    case 'done':
      return <MadeLine measures={video.measures} />;
    case 'failed':
      return <span className="text-xs text-coral-ink">{video.problem}</span>;
    case 'cancelled':
      return <span className="text-xs text-quiet">cancelled</span>;
  }
}

/** What was measured on a video that is made, and what is wrong with it. */
function MadeLine({ measures }: Pick<VideoExport, 'measures'>) {
  if (!measures) return <span className="text-xs text-mint-ink">made</span>;
  const { loudnessLufs, truePeakDb } = measures;
  const problems = measureProblems(measures);
  return (
    <span className="block text-xs tabular-nums">
      <span className="text-mint-ink">made</span>
      <span className="text-quiet">{loudnessLufs === null ? ', silent' : `, ${loudnessLufs.toFixed(1)} LUFS, peak ${(truePeakDb ?? 0).toFixed(1)} dBTP`}</span>
      {problems.map((problem) => (
        <span key={problem} className="block text-coral-ink">
          {problem}
        </span>
      ))}
    </span>
  );
}
