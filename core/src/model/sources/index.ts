export {
  isWarmSource,
  type Reach,
  SOURCE_KINDS,
  type SourceKind,
  sourceNamed,
  WARM_SOURCES,
  type WarmSource,
} from './sources.ts';
