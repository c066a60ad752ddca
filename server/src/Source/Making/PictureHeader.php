<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Ink\Page\Exception\UnreadableRaster;

/** Head of the uncompressed picture files that the picture tool writes between two steps: 64 bytes, then the pixels row by row. */
final readonly class PictureHeader
{
    public const BYTES = 64;
    /** eight bits, and the tool's numbers for grey and for colour of a screen */
    public const GREY = [0, 1];
    public const COLOUR = [0, 22];

    /** @param array{int, int} $kind format of a value, and what the values mean */
    private function __construct(public int $width, public int $height, public int $bands, private array $kind)
    {
    }

    public static function of(string $path): self
    {
        $v = unpack('Nmagic/Vwidth/Vheight/Vbands/Vbits/Vformat/Vcoding/Vmeaning', (string) @file_get_contents($path, false, null, 0, 32));
        // Written low byte first, as every machine this runs on does.
        if (false === $v || 0xB6A6F208 !== $v['magic']) {
            throw UnreadableRaster::unreadable($path);
        }
        $n = array_map(static fn (mixed $value): int => \is_int($value) ? $value : 0, $v);

        return new self($n['width'], $n['height'], $n['bands'], [$n['format'], $n['meaning']]);
    }

    /** Of a plain picture as a page renderer writes it (netpbm, raw grey or colour of eight bits). */
    public static function ofPnm(string $path): self
    {
        if (1 !== preg_match('/^P([56])\s+(\d+)\s+(\d+)\s+255\s/', (string) @file_get_contents($path, false, null, 0, 64), $m)) {
            throw UnreadableRaster::unreadable($path);
        }

        return new self((int) $m[2], (int) $m[3], '5' === $m[1] ? 1 : 3, '5' === $m[1] ? self::GREY : self::COLOUR);
    }

    /** @param array{int, int} $kind */
    public function is(array $kind): bool
    {
        return $this->kind === $kind;
    }
}
