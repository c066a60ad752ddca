<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PostScript;

use Plinth\Core\Exchange\ExactLine;

/**
 * Reads the straight lines and arcs of one page that a PDF renderer has written out as PostScript: one operator to a line, the path
 * operators of PDF (ISO 32000-1, 8.5.2) under their own names. Points, origin at the page's lower left corner as shown, y up.
 *
 * Curves that are no arcs give their two ends only; text, pictures and what only cuts off is left out. Each line says by a number which pen
 * it was drawn with: lines of one number are stroked with one width and colour, or border what is filled with one colour.
 *
 * @phpstan-import-type Line from ExactLine
 *
 * @phpstan-type Matrix array{float, float, float, float, float, float}
 */
final class PageLines
{
    public const MOST = 200_000;
    private const STROKE_COLOURS = ['SC', 'SCN', 'G', 'RG', 'K'];
    private const FILL_COLOURS = ['sc', 'scn', 'g', 'rg', 'k'];
    private const STROKES = ['S', 's', 'B', 'B*', 'b', 'b*'];
    private const PAINTS = [...self::STROKES, 'f', 'F', 'f*'];
    private const IDENTITY = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0];

    /** @return list<Line> */
    public static function read(string $postScript): array
    {
        $start = strpos($postScript, '%%BeginPageSetup');
        $matrix = self::times(self::IDENTITY, self::IDENTITY);
        $kept = [];
        $lines = [];
        [$x, $y, $startX, $startY] = [0.0, 0.0, 0.0, 0.0];
        /** @var array<string, int> $pens */
        [$pens, $width, $stroke, $fill, $path] = [[], 1.0, '0', '0', 0];
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
                case 'w1':
                    $width = $v[0];
                    break;
                case 'q0':
                    $kept[] = [$matrix, $width, $stroke, $fill];
                    break;
                case 'Q0':
                    [$matrix, $width, $stroke, $fill] = array_pop($kept) ?? [$matrix, $width, $stroke, $fill];
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
                    $lines[] = [$x, $y, $u, $w, 0];
                    [$x, $y] = [$u, $w];
                    break;
                case 'c6':
                case 'v4':
                case 'y4':
                    $to = self::of($matrix, $v[\count($v) - 2], $v[\count($v) - 1]);
                    $lead = 'v' === $operator ? [$x, $y] : self::of($matrix, $v[0], $v[1]);
                    $last = 'y' === $operator ? $to : self::of($matrix, $v[\count($v) - 4], $v[\count($v) - 3]);
                    array_push($lines, ...ExactLine::ofCurve([$x, $y], $lead, $last, $to));
                    [$x, $y] = $to;
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
                            $lines[] = [$u, $w, $ring[($i + 1) % 4][0], $ring[($i + 1) % 4][1], 0];
                        }
                    }
                    [$x, $y] = [$startX, $startY] = $ring[0];
                    break;
                case 'h0':
                case 's0':
                case 'b0':
                    if ($x !== $startX || $y !== $startY) {
                        $lines[] = [$x, $y, $startX, $startY, 0];
                        [$x, $y] = [$startX, $startY];
                    }
                    break;
            }
            if (\in_array($operator, self::STROKE_COLOURS, true)) {
                $stroke = implode(' ', $v);
            } elseif (\in_array($operator, self::FILL_COLOURS, true)) {
                $fill = implode(' ', $v);
            } elseif (\in_array($operator, self::PAINTS, true)) {
                $scale = sqrt(abs($matrix[0] * $matrix[3] - $matrix[1] * $matrix[2]));
                $pen = \in_array($operator, self::STROKES, true) ? \sprintf('%.3f of %s', $scale * $width, $stroke) : "fill of $fill";
                $pen = $pens[$pen] ??= \count($pens);
                for (; $path < \count($lines); ++$path) {
                    $lines[$path][4] = $pen;
                }
            } elseif ('n' === $operator) {
                array_splice($lines, $path);
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
