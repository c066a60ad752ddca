<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Svg;

use Plinth\Core\Exchange\ExactLine;

/**
 * Reads the straight lines and arcs of an SVG picture (W3C SVG 1.1, paths and basic shapes with their transforms) in the units of
 * its viewport. Curves that are no arcs give their two ends only; text, symbols, definitions and anything referred to are left out. Each
 * line says by a number which pen it was drawn with: one width and colour of a stroke, or one colour of what it borders.
 *
 * @phpstan-import-type Line from ExactLine
 *
 * @phpstan-type Matrix array{float, float, float, float, float, float}
 */
final class SvgLines
{
    public const MOST = 200_000;
    private const SKIPPED = [
        'defs', 'symbol', 'clipPath', 'mask', 'pattern', 'marker', 'text', 'style', 'metadata', 'title', 'desc', 'switch',
        'foreignObject', 'linearGradient', 'radialGradient', 'filter',
    ];
    private const IDENTITY = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0];

    /**
     * Lines before any view box is applied; none where the text is no SVG.
     *
     * @return array{lines: list<Line>, viewBox: array{float, float, float, float}|null, hasMore: bool}
     */
    public static function read(string $svg): array
    {
        $before = libxml_use_internal_errors(true);
        try {
            $reader = '' === $svg ? false : \XMLReader::XML($svg, null, \LIBXML_NONET | \LIBXML_COMPACT);

            return $reader instanceof \XMLReader ? self::walk($reader) : ['lines' => [], 'viewBox' => null, 'hasMore' => false];
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
    }

    /** @return array{lines: list<Line>, viewBox: array{float, float, float, float}|null, hasMore: bool} */
    private static function walk(\XMLReader $reader): array
    {
        $lines = [];
        $viewBox = null;
        /** @var array<int, Matrix> $matrices by depth */
        $matrices = [-1 => self::IDENTITY];
        /** @var array<int, array<string, string>> $paints by depth */
        $paints = [-1 => ['stroke' => 'none', 'stroke-width' => '1', 'fill' => 'black', 'class' => '']];
        /** @var array<string, int> $pens */
        $pens = [];
        $more = @$reader->read();
        while ($more) {
            if (\XMLReader::ELEMENT !== $reader->nodeType) {
                $more = @$reader->read();
                continue;
            }
            $name = $reader->localName;
            if (\in_array($name, self::SKIPPED, true)) {
                $more = @$reader->next();
                continue;
            }
            $depth = $reader->depth;
            if (
                0 === $depth
                && 1 === preg_match('/^\s*(\S+)[\s,]+(\S+)[\s,]+(\S+)[\s,]+(\S+)\s*$/', (string) $reader->getAttribute('viewBox'), $m)
            ) {
                $viewBox = [(float) $m[1], (float) $m[2], (float) $m[3], (float) $m[4]];
            }
            $matrix = self::times($matrices[$depth - 1] ?? self::IDENTITY, self::transform((string) $reader->getAttribute('transform')));
            $matrices[$depth] = $matrix;
            $paint = $paints[$depth] = self::paint($reader, $paints[$depth - 1] ?? $paints[-1]);
            $scale = sqrt(abs($matrix[0] * $matrix[3] - $matrix[1] * $matrix[2]));
            $pen = $paint['class'].('none' === $paint['stroke'] ? " fill of {$paint['fill']}" : \sprintf(
                ' %.3f of %s',
                $scale * (float) $paint['stroke-width'],
                $paint['stroke'],
            ));
            $of = static fn (float $x, float $y): array => [
                $matrix[0] * $x + $matrix[2] * $y + $matrix[4], $matrix[1] * $x + $matrix[3] * $y + $matrix[5],
            ];
            $keepsArcs = ExactLine::keepsArcs($matrix[0], $matrix[1], $matrix[2], $matrix[3]);
            foreach (self::shape($reader, $name) as $line) {
                $isCurve = isset($line[5]) && !$keepsArcs;
                foreach ($isCurve ? ExactLine::ends([$line[0], $line[1]], [$line[2], $line[3]]) : [$line] as $one) {
                    if (\count($lines) >= self::MOST) {
                        return ['lines' => $lines, 'viewBox' => $viewBox, 'hasMore' => true];
                    }
                    $one[4] = $pens[$pen] ??= \count($pens);
                    $lines[] = ExactLine::mapped($one, $of);
                }
            }
            $more = @$reader->read();
        }

        return ['lines' => $lines, 'viewBox' => $viewBox, 'hasMore' => false];
    }

    /**
     * What an element is painted with: its style before its attributes, and what it does not say as it is outside.
     *
     * @param array<string, string> $outside
     *
     * @return array<string, string>
     */
    private static function paint(\XMLReader $reader, array $outside): array
    {
        $paint = $outside;
        $style = (string) $reader->getAttribute('style');
        foreach (array_keys($outside) as $name) {
            $own = 1 === preg_match('/(?:^|;)\s*'.$name.'\s*:\s*([^;]+)/', $style, $m) ? $m[1] : (string) $reader->getAttribute($name);
            $paint[$name] = '' === trim($own) ? $outside[$name] : trim($own);
        }

        return $paint;
    }

    /** @return iterable<Line> */
    private static function shape(\XMLReader $reader, string $name): iterable
    {
        $n = static fn (string $key): float => (float) $reader->getAttribute($key);

        return match ($name) {
            'path' => self::path((string) $reader->getAttribute('d')),
            'line' => [[$n('x1'), $n('y1'), $n('x2'), $n('y2'), 0]],
            'rect' => self::ring(
                [
                    [$n('x'), $n('y')],
                    [$n('x') + $n('width'), $n('y')],
                    [$n('x') + $n('width'), $n('y') + $n('height')],
                    [$n('x'), $n('y') + $n('height')],
                ],
                true,
            ),
            'polyline', 'polygon' => self::ring(self::points((string) $reader->getAttribute('points')), 'polygon' === $name),
            default => [],
        };
    }

    /** @return list<array{float, float}> */
    private static function points(string $text): array
    {
        $numbers = self::numbers($text);
        $points = [];
        for ($i = 0; $i + 1 < \count($numbers); $i += 2) {
            $points[] = [$numbers[$i], $numbers[$i + 1]];
        }

        return $points;
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return \Generator<int, Line>
     */
    private static function ring(array $points, bool $closed): \Generator
    {
        $last = \count($points) - 1;
        for ($i = 0; $i < $last; ++$i) {
            yield [...$points[$i], ...$points[$i + 1], 0];
        }
        if ($closed && $last > 0) {
            yield [...$points[$last], ...$points[0], 0];
        }
    }

    /** @return \Generator<int, Line> */
    private static function path(string $d): \Generator
    {
        preg_match_all('/([a-zA-Z])([^a-zA-Z]*(?:[eE][-+]?\d[^a-zA-Z]*)*)/', $d, $commands, \PREG_SET_ORDER);
        [$x, $y, $startX, $startY] = [0.0, 0.0, 0.0, 0.0];
        // How many numbers each command takes; the last two are where it ends.
        $takes = ['M' => 2, 'L' => 2, 'H' => 1, 'V' => 1, 'C' => 6, 'S' => 4, 'Q' => 4, 'T' => 2, 'A' => 7];
        foreach ($commands as [, $letter, $text]) {
            $upper = strtoupper($letter);
            $relative = $letter !== $upper;
            if ('Z' === $upper) {
                if ($x !== $startX || $y !== $startY) {
                    yield [$x, $y, $startX, $startY, 0];
                }
                [$x, $y] = [$startX, $startY];
                continue;
            }
            if (!isset($takes[$upper])) {
                continue;
            }
            foreach (array_chunk(self::numbers($text), $takes[$upper]) as $k => $part) {
                if (\count($part) < $takes[$upper]) {
                    break;
                }
                [$fromX, $fromY] = [$x, $y];
                $end = \array_slice($part, -2);
                $x = 'V' === $upper ? $x : ($relative ? $x : 0.0) + $end[0];
                $y = 'H' === $upper ? $y : ($relative ? $y : 0.0) + ('V' === $upper ? $end[0] : $end[1]);
                if ('M' === $upper && 0 === $k) {
                    [$startX, $startY] = [$x, $y];
                } elseif (\in_array($upper, ['M', 'L', 'H', 'V'], true)) {
                    yield [$fromX, $fromY, $x, $y, 0];
                } elseif ('C' === $upper) {
                    [$byX, $byY] = $relative ? [$fromX, $fromY] : [0.0, 0.0];
                    yield from ExactLine::ofCurve(
                        [$fromX, $fromY],
                        [$byX + $part[0], $byY + $part[1]],
                        [$byX + $part[2], $byY + $part[3]],
                        [$x, $y],
                    );
                } else {
                    yield from 'A' === $upper ? self::arc([$fromX, $fromY], $part, [$x, $y]) : ExactLine::ends([$fromX, $fromY], [$x, $y]);
                }
            }
        }
    }

    /**
     * An elliptical arc (SVG 1.1, F.6): an arc where both its radii are one.
     *
     * @param array{float, float} $from
     * @param list<float> $by radii, rotation, whether it is the large one, whether its angle grows, end
     * @param array{float, float} $to
     *
     * @return list<Line>
     */
    private static function arc(array $from, array $by, array $to): array
    {
        $half = hypot($to[0] - $from[0], $to[1] - $from[1]) / 2.0;
        $radius = abs($by[0]);
        if ($half <= 0.0 || $radius <= 0.0 || abs(abs($by[1]) - $radius) > 1e-6 * $radius) {
            return ExactLine::ends($from, $to);
        }
        // A radius that is too small to span the chord is the least that does.
        $toChord = sqrt(max(0.0, $radius * $radius - $half * $half));
        $rise = max($radius, $half) + (0.0 === $by[3] ? -$toChord : $toChord);

        return [[...$from, ...$to, 0, 0.0 === $by[4] ? $rise : -$rise]];
    }

    /** @return list<float> */
    private static function numbers(string $text): array
    {
        preg_match_all('/[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/', $text, $m);

        return array_map(floatval(...), $m[0]);
    }

    /** @return Matrix */
    private static function transform(string $text): array
    {
        $matrix = self::IDENTITY;
        preg_match_all('/(matrix|translate|scale|rotate)\s*\(([^)]*)\)/', $text, $parts, \PREG_SET_ORDER);
        foreach ($parts as [, $kind, $arguments]) {
            $v = self::numbers($arguments);
            [$a, $b] = [$v[0] ?? 0.0, $v[1] ?? 0.0];
            $turn = deg2rad($a);
            $matrix = self::times($matrix, match ($kind) {
                'matrix' => [$v[0] ?? 1.0, $v[1] ?? 0.0, $v[2] ?? 0.0, $v[3] ?? 1.0, $v[4] ?? 0.0, $v[5] ?? 0.0],
                'translate' => [1.0, 0.0, 0.0, 1.0, $a, $b],
                'scale' => [$a, 0.0, 0.0, $v[1] ?? $a, 0.0, 0.0],
                'rotate' => self::times(
                    self::times([1.0, 0.0, 0.0, 1.0, $b, $v[2] ?? 0.0], [cos($turn), sin($turn), -sin($turn), cos($turn), 0.0, 0.0]),
                    [1.0, 0.0, 0.0, 1.0, -$b, -($v[2] ?? 0.0)],
                ),
            });
        }

        return $matrix;
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
