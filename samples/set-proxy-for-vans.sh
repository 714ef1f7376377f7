#!/bin/sh
# Points the vans' devices at the mirror on board.
set -eu
printf 'proxy=van.quillbrook.example\n' > /etc/van-proxy.conf
