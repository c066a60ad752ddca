<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Gltf\Internal;

use Plinth\Core\Plan\Model\Finish;

/**
 * What repeats of a pattern as a small picture: pieces in the finish's colour, joints darker.
 *
 * Source: the PNG specification (ISO/IEC 15948), colour type 2, no filter.
 *
 * @internal
 */
final class PatternPicture
{
    private const SIDE = 256;
    private const JOINT = 0.72;

    /** @return string PNG; the pattern's start is its lower left corner */
    public static function of(Finish $finish): string
    {
        $module = $finish->repeat()['size'] ?? [1.0, 1.0];
        // A joint of less than a pixel is one all the same: without it no piece would be told from the next.
        $wide = max(0.0, max($module) / self::SIDE - $finish->joint);
        $drawn = new Finish(
            $finish->id,
            $finish->name,
            $finish->colour,
            $finish->pattern,
            $finish->width - $wide,
            0.0 === $finish->height ? 0.0 : $finish->height - $wide,
            $finish->joint + $wide,
            $finish->bond,
        );
        ['size' => [$width, $height], 'pieces' => $pieces] = $drawn->repeat() ?? ['size' => $module, 'pieces' => []];
        // Both sides powers of two, which every reader takes; the pattern keeps its true size by where it is laid.
        $w = $h = self::SIDE;
        $colour = array_map(hexdec(...), str_split(substr($finish->colour, 1), 2));
        $piece = pack('C3', ...$colour);
        $joint = pack('C3', ...array_map(static fn (float|int $c): int => (int) round($c * self::JOINT), $colour));
        $rows = '';
        for ($row = $h - 1; $row >= 0; --$row) {
            $v = ($row + 0.5) * $height / $h;
            $line = array_fill(0, $w, $joint);
            foreach ($pieces as [$left, $low, $right, $top]) {
                if ($v < $low || $v >= $top) {
                    continue;
                }
                for ($x = (int) ceil($left * $w / $width - 0.5); $x < $w && ($x + 0.5) * $width / $w < $right; ++$x) {
                    $line[max(0, $x)] = $piece;
                }
            }
            $rows .= "\0".implode('', $line);
        }

        return "\x89PNG\r\n\x1a\n".self::chunk('IHDR', pack('NNCCCCC', $w, $h, 8, 2, 0, 0, 0))
            .self::chunk('IDAT', (string) gzcompress($rows, 9)).self::chunk('IEND', '');
    }

    private static function chunk(string $type, string $data): string
    {
        return pack('N', \strlen($data)).$type.$data.pack('N', crc32($type.$data));
    }
}
