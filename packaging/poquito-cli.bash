# Completion of poquito-cli for bash.
_poquito_cli() {
  local current=${COMP_WORDS[COMP_CWORD]} previous=${COMP_WORDS[COMP_CWORD-1]} command=${COMP_WORDS[1]}
  COMPREPLY=()
  if [ "$COMP_CWORD" -eq 1 ]; then
    mapfile -t COMPREPLY < <(compgen -W "report sheet stack order plan run log inspect deliver book sun rail --help --version" -- "$current")
    return
  fi
  local options="--help"
  case $command in
    order) options="--help --seconds --out" ;;
    run) options="--help --speed --tests --width --serial --rail --dialect --trouble" ;;
    inspect) options="--help --shoot --shot --singles --watch --until-quiet" ;;
    deliver) options="--help --overwrite" ;;
    book) options="--help --book --words --export --import --forget --lessons" ;;
    plan) options="--help --take --out" ;;
    rail) options="--help --travel --speed" ;;
  esac
  case $previous in
    --trouble)
      mapfile -t COMPREPLY < <(compgen -W "camera-drops@ rail-drops@ card-full@ flash-not-ready@ flash-dies@ subject-moves@ wrong-aperture@" -- "$current")
      compopt -o nospace
      return ;;
    --speed|--seconds|--travel|--width) return ;;
  esac
  if [[ $current == -* ]]; then
    mapfile -t COMPREPLY < <(compgen -W "$options" -- "$current")
    return
  fi
  # The id of a shot stands behind the file it is in.
  if [[ ( $command == run || $command == stack || $command == plan ) && $previous == *.poquito && -r $previous ]]; then
    local ids
    ids=$(poquito-cli report "$previous" 2>/dev/null | sed -n 's/^   "id": "\(.*\)",$/\1/p')
    mapfile -t COMPREPLY < <(compgen -W "$ids" -- "$current")
    return
  fi
  compopt -o filenames
  case $command in
    log) mapfile -t COMPREPLY < <(compgen -f -X '!*.journal' -- "$current"; compgen -d -- "$current") ;;
    inspect)
      local pattern='!*.@(jpg|jpeg|png|tif|tiff|dng)'
      [ "$previous" != --shoot ] || pattern='!*.poquito'
      mapfile -t COMPREPLY < <(compgen -f -X "$pattern" -- "$current"; compgen -d -- "$current") ;;
    *) mapfile -t COMPREPLY < <(compgen -f -X '!*.poquito' -- "$current"; compgen -d -- "$current") ;;
  esac
}
complete -F _poquito_cli poquito-cli
