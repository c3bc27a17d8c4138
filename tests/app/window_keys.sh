#!/usr/bin/env bash
# The program itself, driven through the X server by real key and mouse events: a measure is typed, the order saved, the
# saved file compared with what the command line makes of the same change.
# usage: window_keys.sh ARMURE PROJECT_DIR (needs a display)
set -euo pipefail
armure=$1
project=$2
cli=$(dirname "$armure")/../cli/armure-cli
work=$(mktemp -d)
export XDG_STATE_HOME=$work/state XDG_DATA_HOME=$work/data
trap 'kill $program 2>/dev/null || true; rm -rf "$work"' EXIT
cp "$project/demo/1-ferry.armure" "$work/order.armure"
"$armure" "$work/order.armure" &
program=$!
window=$(timeout 60 xdotool search --sync --onlyvisible --pid "$program" --name '^Armure$' | head -1)
sleep 1
xdotool windowfocus "$window" || true
# The waist: fourth field of the girths, at its place in the tray (see docs/screenshots/client.png).
xdotool mousemove --window "$window" 215 351 click 1
sleep 0.3
xdotool key --window 0 ctrl+a
xdotool type --delay 30 '27.5'
sleep 0.3
xdotool key ctrl+s
for _ in $(seq 50); do
  grep -q '"typed": "27.5 in"' "$work/order.armure" && break
  sleep 0.2
done
"$cli" set "$project/demo/1-ferry.armure" waist=27.5 -o "$work/expected.armure"
"$cli" export "$work/order.armure" --pieces "$work/window.json"
"$cli" export "$work/expected.armure" --pieces "$work/command.json"
cmp "$work/window.json" "$work/command.json"
echo "typed in the window, saved, and the same pattern as from the command line"
