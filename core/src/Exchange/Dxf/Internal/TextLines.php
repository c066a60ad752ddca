<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Exchange\Dxf\DxfText;

/**
 * The lines of letters that one entity writes (DXF reference, 2018: TEXT, ATTRIB, MTEXT and its codes of format).
 */
final class TextLines
{
    private const LONGEST = 400;
    private const MOST_LINES = 200;
    /** from one line of several to the next, heights of capitals */
    private const LINE = 5.0 / 3.0;
    /** a stack of two; what ends with a semicolon; a line, a space that does not break, strokes; signs that mean themselves; groups */
    private const CODES = '/\\\\S([^;]*);|\\\\[fFHWCcATQp][^;\\\\{}]*;|\\\\P|\\\\~|\\\\[LlOoKkN]|\\\\([\\\\{}])'
        .'|[{}]|\^[IJM]|[^\\\\{}^]+|./su';
    /** what hangs below the baseline, heights of capitals */
    private const HANGS = 0.333;
    private const ANCHORS = ['start', 'middle', 'end'];
    private const SIGNS = ['%%d' => '°', '%%D' => '°', '%%p' => '±', '%%P' => '±', '%%c' => '⌀', '%%C' => '⌀', '%%%' => '%'];

    /** @return list<DxfText> */
    public static function of(Entity $e): array
    {
        $texts = match ($e->kind) {
            'TEXT' => self::line($e),
            // 1: an attribute that does not show
            'ATTRIB' => 1 === ((int) $e->number(70) & 1) ? [] : self::line($e),
            'MTEXT' => self::lines($e),
            default => [],
        };

        return array_values(array_filter(
            $texts,
            static fn (DxfText $t): bool => '' !== $t->text && $t->height > 0.0 && is_finite($t->x + $t->y + $t->height),
        ));
    }

    /** @return list<DxfText> */
    private static function line(Entity $e): array
    {
        [$across, $up] = [(int) $e->number(72), (int) $e->number(73)];
        // Aligned and fitted lines begin where they are put; all others but plain ones hang on a second place.
        $isPlain = (0 === $across && 0 === $up) || 3 === $across || 5 === $across;
        $at = $e->points($isPlain ? 10 : 11)[0] ?? $e->points(10)[0] ?? [0.0, 0.0, 0.0];
        $anchor = $isPlain ? 'start' : (4 === $across ? 'middle' : self::ANCHORS[$across] ?? 'start');
        $below = $isPlain ? 0.0 : match (true) {
            3 === $up => 1.0,
            2 === $up, 4 === $across => 0.5,
            1 === $up => -self::HANGS,
            default => 0.0,
        };

        return [self::written(strtr(self::decoded($e->text(1)), self::SIGNS), $e, $at, deg2rad($e->number(50)), $anchor, $below)];
    }

    /** @return list<DxfText> */
    private static function lines(Entity $e): array
    {
        $text = '';
        foreach ($e->groups as [$code, $value]) {
            if (3 === $code) {
                $text .= $value;
            }
        }
        $lines = \array_slice(explode("\n", self::plain(self::decoded($text.$e->text(1)))), 0, self::MOST_LINES);
        $place = max(1, min(9, (int) $e->number(71, 1.0))) - 1;
        [$anchor, $row] = [self::ANCHORS[$place % 3], intdiv($place, 3)];
        $way = $e->points(11)[0] ?? null;
        $turn = null === $way ? deg2rad($e->number(50)) : atan2($way[1], $way[0]);
        $step = self::LINE * max(0.25, min(4.0, $e->number(44, 1.0)));
        // Of the first line: its own height under the top, and as far up as all the others need.
        $below = 1.0 - $row / 2.0 * (1.0 + $step * (\count($lines) - 1));
        $at = $e->points(10)[0] ?? [0.0, 0.0, 0.0];

        return array_map(
            static fn (string $line, int $i): DxfText => self::written($line, $e, $at, $turn, $anchor, $below + $i * $step),
            $lines,
            array_keys($lines),
        );
    }

    /**
     * @param array{float, float, float} $at
     * @param 'start'|'middle'|'end' $anchor
     * @param float $below by how many heights its baseline lies below the place
     */
    private static function written(string $text, Entity $e, array $at, float $turn, string $anchor, float $below): DxfText
    {
        $height = $e->number(40);
        [$x, $y] = [$at[0] + $below * $height * sin($turn), $at[1] - $below * $height * cos($turn)];
        if ('MTEXT' === $e->kind) {
            // Its place is in the world's own coordinates.
            return new DxfText(self::bounded($text), $x, $y, $height, $turn, $anchor);
        }
        $plane = $e->plane();
        [$x1, $y1] = $plane->place($x, $y, $at[2]);
        [$x2, $y2] = $plane->place($x + cos($turn), $y + sin($turn), $at[2]);

        return new DxfText(self::bounded($text), $x1, $y1, $height, atan2($y2 - $y1, $x2 - $x1), $anchor);
    }

    private static function bounded(string $text): string
    {
        return mb_substr(trim((string) preg_replace('/[\p{C}\s]+/u', ' ', $text)), 0, self::LONGEST);
    }

    /** As UTF-8: older files have the letters of western Europe by one byte, and others by their number. */
    private static function decoded(string $text): string
    {
        $text = mb_check_encoding($text, 'UTF-8') ? $text : mb_convert_encoding($text, 'UTF-8', 'Windows-1252');

        return (string) preg_replace_callback(
            '/\\\\U\+([0-9A-Fa-f]{4})/',
            static fn (array $m): string => mb_chr((int) hexdec($m[1])),
            (string) preg_replace('/%%[uUoOkK]/', '', $text),
        );
    }

    /** Without what says how it is written: fonts, sizes, colours, groups and strokes. */
    private static function plain(string $text): string
    {
        $plain = '';
        preg_match_all(self::CODES, $text, $parts, \PREG_SET_ORDER);
        foreach ($parts as $part) {
            $plain .= match (true) {
                isset($part[2]) => $part[2],
                isset($part[1]) => strtr($part[1], ['^ ' => '/', '^' => '/', '#' => '/']),
                '\P' === $part[0], '^J' === $part[0] => "\n",
                '\~' === $part[0], '^I' === $part[0] => ' ',
                '\\' === $part[0][0], '{' === $part[0], '}' === $part[0], '^M' === $part[0] => '',
                default => $part[0],
            };
        }

        return strtr($plain, self::SIGNS);
    }
}
