<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PostScript;

/**
 * Reads the straight lines of one page that a PDF renderer has written out as PostScript: one operator to a line, the path
 * operators of PDF (ISO 32000-1, 8.5.2) under their own names. Points, origin at the page's lower left corner as shown, y up.
 *
 * Curves give their two ends only; text and pictures are left out.
 *
 * @phpstan-type Line array{float, float, float, float}
 * @phpstan-type Matrix array{float, float, float, float, float, float}
 */
final class PageLines
{
    public const MOST = 200_000;
    private const IDENTITY = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0];

    /** @return list<Line> */
    public static function read(string $postScript): array
    {
        $start = strpos($postScript, '%%BeginPageSetup');
        $matrix = self::times(self::IDENTITY, self::IDENTITY);
        $kept = [];
        $lines = [];
        [$x, $y, $startX, $startY] = [0.0, 0.0, 0.0, 0.0];
        $n = \strlen($postScript);
        for ($at = false === $start ? $n : $start; $at < $n && \count($lines) < self::MOST; $at += $length + 1) {
            $length = strcspn($postScript, "\n", $at);
            if ($length > 120 || 0 === $length) {
                continue; // data of a picture, or nothing
            }
            $words = explode(' ', strtr(rtrim(substr($postScript, $at, $length)), '[]', '  '));
            $operator = array_pop($words);
            $v = array_values(array_map(floatval(...), array_filter($words, is_numeric(...))));
            switch ($operator.\count($v)) {
                case 'q0':
                    $kept[] = $matrix;
                    break;
                case 'Q0':
                    $matrix = array_pop($kept) ?? $matrix;
                    break;
                case 'cm6':
                    $matrix = self::times($matrix, [$v[0], $v[1], $v[2], $v[3], $v[4], $v[5]]);
                    break;
                case 'rotate1':
                    $matrix = self::times($matrix, [
                        cos(deg2rad($v[0])), sin(deg2rad($v[0])), -sin(deg2rad($v[0])), cos(deg2rad($v[0])), 0.0, 0.0,
                    ]);
                    break;
                case 'translate2':
                    $matrix = self::times($matrix, [1.0, 0.0, 0.0, 1.0, $v[0], $v[1]]);
                    break;
                case 'scale2':
                    $matrix = self::times($matrix, [$v[0], 0.0, 0.0, $v[1], 0.0, 0.0]);
                    break;
                case 'm2':
                    [$x, $y] = [$startX, $startY] = self::of($matrix, $v[0], $v[1]);
                    break;
                case 'l2':
                    [$u, $w] = self::of($matrix, $v[0], $v[1]);
                    $lines[] = [$x, $y, $u, $w];
                    [$x, $y] = [$u, $w];
                    break;
                case 'c6':
                case 'v4':
                case 'y4':
                    $lines[] = [$x, $y, $x, $y];
                    [$x, $y] = self::of($matrix, $v[\count($v) - 2], $v[\count($v) - 1]);
                    $lines[] = [$x, $y, $x, $y];
                    break;
                case 're4':
                    $ring = [
                        self::of($matrix, $v[0], $v[1]),
                        self::of($matrix, $v[0] + $v[2], $v[1]),
                        self::of($matrix, $v[0] + $v[2], $v[1] + $v[3]),
                        self::of($matrix, $v[0], $v[1] + $v[3]),
                    ];
                    // The page's own edge comes as a clipping box in its setup.
                    if (!str_starts_with(substr($postScript, $at + $length + 1, 2), 'W')) {
                        foreach ($ring as $i => [$u, $w]) {
                            $lines[] = [$u, $w, ...$ring[($i + 1) % 4]];
                        }
                    }
                    [$x, $y] = [$startX, $startY] = $ring[0];
                    break;
                case 'h0':
                case 's0':
                case 'b0':
                    if ($x !== $startX || $y !== $startY) {
                        $lines[] = [$x, $y, $startX, $startY];
                        [$x, $y] = [$startX, $startY];
                    }
                    break;
            }
        }

        return $lines;
    }

    /**
     * @param Matrix $m
     *
     * @return array{float, float}
     */
    private static function of(array $m, float $x, float $y): array
    {
        return [$m[0] * $x + $m[2] * $y + $m[4], $m[1] * $x + $m[3] * $y + $m[5]];
    }

    /**
     * @param Matrix $a
     * @param Matrix $b
     *
     * @return Matrix
     */
    private static function times(array $a, array $b): array
    {
        return [
            $a[0] * $b[0] + $a[2] * $b[1], $a[1] * $b[0] + $a[3] * $b[1],
            $a[0] * $b[2] + $a[2] * $b[3], $a[1] * $b[2] + $a[3] * $b[3],
            $a[0] * $b[4] + $a[2] * $b[5] + $a[4], $a[1] * $b[4] + $a[3] * $b[5] + $a[5],
        ];
    }
}
