import { useQuery } from '@tanstack/react-query';
import {
  codecsIn,
  imageFormats,
  videoQualities,
  type ExportFormat,
  type ExportSpec,
  type ImageFormatName,
  type ImagesFormat,
  type SoundCodecName,
  type VideoCodecName,
  type VideoContainer,
  type VideoFormat,
  type VideoQuality,
} from '../../core/export/spec';
import { engine } from '../engine/client';
import { SelectField } from '../parts/field';
import { Row, Toggle } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';

const codecNames: Record<VideoCodecName, string> = { vp9: 'VP9', av1: 'AV1', avc: 'H.264', hevc: 'HEVC' };
const soundNames: Record<SoundCodecName, string> = { none: 'None', opus: 'Opus', aac: 'AAC', pcm: 'PCM' };
const qualityNames: Record<VideoQuality | 'bitrate', string> = {
  low: 'Low',
  medium: 'Medium',
  high: 'High',
  'very-high': 'Very high',
  bitrate: 'By bit rate',
};
const imageNames: Record<ImageFormatName, string> = {
  png: 'PNG, 8 bits',
  png16: 'PNG, 16 bits',
  exr16: 'EXR, half floats',
  exr32: 'EXR, floats',
  jpeg: 'JPEG',
  webp: 'WebP',
};

/** What this browser can encode at a size. */
const useEncoders = (width: number, height: number) =>
  useQuery({
    queryKey: ['encoders', width, height],
    queryFn: async () => (await engine().request({ type: 'encoders', width, height })).encoders,
    staleTime: Infinity,
  }).data;

const pairs = <T extends string>(ids: readonly T[], names: Record<T, string>): [string, string][] =>
  ids.map((id) => [id, names[id]]);

function VideoRows({
  spec,
  format,
  set,
}: {
  spec: ExportSpec;
  format: VideoFormat;
  set(format: VideoFormat): void;
}) {
  const encoders = useEncoders(spec.width, spec.height);
  const { container, codec, quality, effort, alpha, sound } = format;
  const change = (part: Partial<VideoFormat>): void => set({ ...format, ...part });
  const isRate = typeof quality === 'number';
  const canEncode = !encoders || encoders.video.includes(codec);
  return (
    <>
      <Row label="Container">
        <SelectField
          label="Container"
          className="flex-1"
          value={container}
          options={[
            ['webm', 'WebM'],
            ['mp4', 'MP4'],
          ]}
          onChange={(id) => {
            const next = id as VideoContainer;
            const { video, sound: sounds } = codecsIn[next];
            change({
              container: next,
              codec: video.includes(codec) ? codec : video[0],
              sound: sounds.includes(sound) ? sound : 'none',
              alpha: next === 'webm' && alpha,
            });
          }}
        />
        <SelectField
          label="Codec"
          className="flex-1"
          value={codec}
          options={pairs(codecsIn[container].video, codecNames)}
          onChange={(id) => change({ codec: id as VideoCodecName, alpha: id === 'vp9' && alpha })}
        />
      </Row>
      {!canEncode && (
        <p className="text-2xs text-warning" role="status">
          This browser cannot encode {codecNames[codec]} at {spec.width} x {spec.height}. It can:{' '}
          {encoders.video.map((id) => codecNames[id]).join(', ') || 'nothing'}.
        </p>
      )}
      <Row label="Quality">
        <SelectField
          label="Quality"
          className="flex-1"
          value={isRate ? 'bitrate' : quality}
          options={[...pairs(videoQualities, qualityNames), ['bitrate', qualityNames.bitrate]]}
          onChange={(id) => change({ quality: id === 'bitrate' ? 12e6 : (id as VideoQuality) })}
        />
        {isRate && (
          <ScrubNumber
            label="Bit rate"
            value={quality / 1e6}
            step={1}
            fine={0.1}
            min={0.01}
            max={1000}
            digits={2}
            unit=" Mbit/s"
            className="w-24"
            onChange={(rate) => change({ quality: rate * 1e6 })}
          />
        )}
      </Row>
      <Row label="Effort">
        <SelectField
          label="Effort"
          className="flex-1"
          value={effort}
          options={[
            ['realtime', 'Quick'],
            ['careful', 'Careful, smaller'],
          ]}
          onChange={(id) => change({ effort: id as VideoFormat['effort'] })}
        />
        <Toggle
          label="Alpha"
          on={alpha}
          disabled={codec !== 'vp9' || container !== 'webm' || spec.output !== null}
          set={(on) => change({ alpha: on })}
        />
      </Row>
      <Row label="Sound">
        <SelectField
          label="Sound"
          className="flex-1"
          value={sound}
          options={pairs(
            codecsIn[container].sound.filter(
              (id) => id === sound || !encoders || encoders.sound.includes(id),
            ),
            soundNames,
          )}
          onChange={(id) => change({ sound: id as SoundCodecName })}
        />
      </Row>
    </>
  );
}

function ImageRows({
  spec,
  format,
  set,
}: {
  spec: ExportSpec;
  format: ImagesFormat;
  set(format: ImagesFormat): void;
}) {
  const isExr = format.image.startsWith('exr');
  const change = (part: Partial<ImagesFormat>): void => set({ ...format, ...part });
  return (
    <>
      <Row label="Files">
        <SelectField
          label="Files"
          className="flex-1"
          value={format.image}
          options={pairs(imageFormats, imageNames)}
          onChange={(id) => {
            const image = id as ImageFormatName;
            const deep = image.startsWith('exr');
            change({
              image,
              alpha: image !== 'jpeg' && format.alpha,
              linear: deep && format.linear,
              depth: deep && format.depth,
            });
          }}
        />
        <Toggle
          label="Alpha"
          on={format.alpha}
          disabled={format.image === 'jpeg' || spec.output !== null || spec.source.type !== 'scene'}
          set={(alpha) => change({ alpha })}
        />
      </Row>
      {isExr && (
        <Row label="">
          <Toggle label="Linear light" on={format.linear} set={(linear) => change({ linear })} />
          <Toggle
            label="Depth"
            on={format.depth}
            disabled={spec.source.type !== 'scene' || spec.source.node === null}
            set={(depth) => change({ depth })}
          />
        </Row>
      )}
    </>
  );
}

/** The format of an export: what it is, and the rows of its kind. */
export function FormatRows({ spec, set }: { spec: ExportSpec; set(format: ExportFormat): void }) {
  const { format } = spec;
  if (format.type === 'video') return <VideoRows spec={spec} format={format} set={set} />;
  if (format.type === 'images') return <ImageRows spec={spec} format={format} set={set} />;
  if (format.type === 'animation')
    return (
      <Row label="File">
        <SelectField
          label="File"
          className="flex-1"
          value={format.image}
          options={[
            ['webp', 'Animated WebP'],
            ['gif', 'GIF'],
          ]}
          onChange={(id) => set({ type: 'animation', image: id as 'webp' | 'gif' })}
        />
      </Row>
    );
  return (
    <Row label="File">
      <SelectField
        label="File"
        className="flex-1"
        value={format.as}
        options={[
          ['csv', 'CSV, a row for each frame'],
          ['pcap', 'Recorded packets'],
        ]}
        onChange={(id) => set({ type: 'pixels', as: id as 'csv' | 'pcap' })}
      />
    </Row>
  );
}
