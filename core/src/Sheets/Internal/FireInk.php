<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Enclosure\EnclosedArea;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\Written;

/**
 * What a fire plan shows of a storey: enclosures by colour and hatch, their classes in words, exits, ways out with their lengths.
 *
 * @internal
 *
 * @phpstan-import-type Ring from FreePaper
 */
final readonly class FireInk
{
    private const TEXT_MM = 2.5;
    private const CLASS_MM = 3.0;
    /** Of an arrow's head, and of the arrow at an exit, mm. */
    private const HEAD_MM = 2.2;
    private const EXIT_MM = 7.0;
    /** About words, where the hatch is left out, mm. */
    private const CLEAR_MM = 0.8;
    private const DASHES = [8.0, 4.0];

    public function __construct(
        private FireOnPlan $fire,
        private Storey $storey,
        private PlanOnPaper $paper,
        private FreePaper $free,
        private Written $written,
    ) {
    }

    /** What lies under all else: the colours, so light that words are read on them. */
    public function under(): SheetInk
    {
        return new SheetInk(array_map(
            fn (array $of): InkArea => new InkArea(array_map($this->ring(...), $of[1]->rings()), 1.0, $of[0]->tint()),
            $this->fire->on($this->storey->id),
        ));
    }

    /**
     * What encloses, in words, well inside.
     *
     * @return list<InkText>
     */
    public function classes(): array
    {
        $texts = [];
        foreach ($this->fire->on($this->storey->id) as [$class, $area]) {
            $text = $this->named($class, $area);
            if (null !== $text) {
                $texts[] = $text;
                $this->free->take($text->room());
            }
        }

        return $texts;
    }

    /**
     * Hatches, left out where words stand, and what bounds them.
     *
     * @param list<InkText> $words
     */
    public function hatches(array $words): SheetInk
    {
        $lines = [];
        foreach ($this->fire->on($this->storey->id) as [$class, $area]) {
            $rings = array_map($this->ring(...), $area->rings());
            foreach ($rings as $ring) {
                $lines[] = new InkLine($ring, InkLine::BROAD, closed: true, colour: $class->rgb());
            }
            foreach (Overlay::difference(self::turned($rings), $this->clear($words, $rings)) as ['outer' => $outer, 'holes' => $holes]) {
                array_push($lines, ...HatchStrokes::ofClass([$outer, ...$holes], $class));
            }
        }

        return new SheetInk([], $lines);
    }

    /**
     * Arrows out of exits, with what they lead to.
     *
     * @param array<string, Ring> $openings rings of openings, mm
     * @param callable(array{float, float}): bool $isInRoom of a place on paper
     */
    public function exits(array $openings, callable $isInRoom): SheetInk
    {
        $ink = new SheetInk();
        foreach ($this->storey->openings as $opening) {
            $ring = $openings[$opening->id] ?? [];
            if (DoorExit::None === $opening->exit || \count($ring) < 4) {
                continue;
            }
            $at = $this->ring($ring);
            $half = intdiv(\count($at), 2);
            [$right, $left] = [self::middle($at[0], $at[$half - 1]), self::middle($at[$half], $at[\count($at) - 1])];
            $thick = max(1e-9, hypot($right[0] - $left[0], $right[1] - $left[1]));
            [$ux, $uy] = [($right[0] - $left[0]) / $thick, ($right[1] - $left[1]) / $thick];
            // Out is where no room is; between two rooms nobody can say.
            $isRight = !$isInRoom([$right[0] + $ux, $right[1] + $uy]);
            [$face, $way] = $isRight ? [$right, 1.0] : [$left, -1.0];
            $tip = [$face[0] + $way * self::EXIT_MM * $ux, $face[1] + $way * self::EXIT_MM * $uy];
            $text = $this->exit(DoorExit::Final === $opening->exit ? 'FINAL EXIT' : 'EXIT', $tip, [$way * $ux, $way * $uy]);
            $this->free->take($text->room());
            $this->free->line([$face, $tip]);
            $ink = $ink->with(new SheetInk([self::head($face, $tip)], [new InkLine([$face, $tip], InkLine::WIDE)], [$text]));
        }

        return $ink;
    }

    /**
     * @param array{float, float} $tip of its arrow
     * @param array{float, float} $way that points, a unit vector
     */
    private function exit(string $words, array $tip, array $way): InkText
    {
        $isUpright = abs($way[1]) > abs($way[0]);
        $text = new InkText(0.0, 0.0, $words, self::CLASS_MM);
        foreach ([0.0, 4.0, 8.0, 12.0, 0.0] as $more) {
            [$x, $y] = [$tip[0] + $more * $way[0], $tip[1] + $more * $way[1]];
            $text = new InkText(
                $x,
                $y + ($isUpright ? ($way[1] > 0.0 ? 4.0 : -1.5) : 1.0),
                $words,
                self::CLASS_MM,
                $isUpright ? 'middle' : ($way[0] > 0.0 ? 'start' : 'end'),
                bold: true,
            );
            if ($this->free->isFree($text->room(), 0.3)) {
                break;
            }
        }

        return $text;
    }

    /** Ways out from the worst place of each room of it, and what of those from other storeys runs here. */
    public function ways(): SheetInk
    {
        [$areas, $lines, $texts, $drawn] = [[], [], [], []];
        foreach ($this->fire->ways() as $room) {
            $route = $room->toFinal ?? $room->toExit;
            if (null === $route) {
                continue;
            }
            foreach ($route->on($this->storey->id) as [$places, $isFirst]) {
                $points = array_map($this->paper->of(...), $places);
                $key = serialize($points);
                if (isset($drawn[$key])) {
                    continue;
                }
                $drawn[$key] = true;
                $lines[] = new InkLine($points, InkLine::MEDIUM, self::DASHES);
                $areas[] = self::head($points[\count($points) - 2], $points[\count($points) - 1]);
                $this->free->line($points);
                if ($isFirst) {
                    $areas[] = self::dot($points[0]);
                    $texts[] = [$points, $this->written->length($route->mm)];
                }
            }
        }

        return new SheetInk($areas, $lines, array_values(array_filter(array_map(fn (array $t): ?InkText => $this->length(...$t), $texts))));
    }

    /**
     * What of lines runs beside words, stretch by stretch.
     *
     * @param list<InkLine> $lines
     * @param list<InkText> $words
     *
     * @return list<InkLine>
     */
    public static function clearOf(array $lines, array $words): array
    {
        $boxes = array_map(static fn (InkText $t): array => Polygon::bounds($t->room()), $words);
        $clear = [];
        foreach ($lines as $line) {
            for ($i = 1; $i < \count($line->points); ++$i) {
                [$a, $b] = [$line->points[$i - 1], $line->points[$i]];
                $covered = array_values(array_filter(array_map(static fn (array $box): ?array => self::within($a, $b, $box), $boxes)));
                usort($covered, static fn (array $p, array $q): int => $p[0] <=> $q[0]);
                $end = 0.0;
                foreach ([...$covered, [1.0, 1.0]] as [$from, $to]) {
                    if ($from > $end) {
                        $clear[] = new InkLine([
                            [$a[0] + $end * ($b[0] - $a[0]), $a[1] + $end * ($b[1] - $a[1])],
                            [$a[0] + $from * ($b[0] - $a[0]), $a[1] + $from * ($b[1] - $a[1])],
                        ], $line->width, $line->dashes);
                    }
                    $end = max($end, $to);
                }
            }
        }

        return $clear;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float, float, float} $box
     *
     * @return array{float, float}|null which part of a stretch lies in a box, from 0 to 1
     */
    private static function within(array $a, array $b, array $box): ?array
    {
        $from = 0.0;
        $to = 1.0;
        foreach ([0, 1] as $k) {
            $d = $b[$k] - $a[$k];
            $least = $box[$k] - self::CLEAR_MM - $a[$k];
            $most = $box[$k + 2] + self::CLEAR_MM - $a[$k];
            if (abs($d) < 1e-9) {
                if ($least > 0.0 || $most < 0.0) {
                    return null;
                }
            } else {
                $from = max($from, min($least / $d, $most / $d));
                $to = min($to, max($least / $d, $most / $d));
            }
        }

        return $to > $from ? [$from, $to] : null;
    }

    /** @param list<array{float, float}> $points */
    private function length(array $points, string $words): ?InkText
    {
        for ($i = 1; $i < \count($points); ++$i) {
            foreach ([0.5, 0.35, 0.65, 0.2, 0.8] as $t) {
                $x = $points[$i - 1][0] + $t * ($points[$i][0] - $points[$i - 1][0]);
                $y = $points[$i - 1][1] + $t * ($points[$i][1] - $points[$i - 1][1]);
                foreach ([[1.2, -1.0, 'start'], [-1.2, -1.0, 'end'], [1.2, 3.5, 'start'], [-1.2, 3.5, 'end']] as [$dx, $dy, $anchor]) {
                    $text = new InkText($x + $dx, $y + $dy, $words, self::TEXT_MM, $anchor);
                    if ($this->free->isFree($text->room(), 0.3)) {
                        $this->free->take($text->room());

                        return $text;
                    }
                }
            }
        }

        return null;
    }

    private function named(FireClass $class, EnclosedArea $area): ?InkText
    {
        foreach ($area->shapes as $shape) {
            $ring = array_map($this->paper->of(...), $shape['outer']);
            foreach (Stamps::places($ring, $this->paper->of($area->label() ?? [0.0, 0.0])) as [$x, $y]) {
                $text = new InkText($x, $y, $class->name, self::CLASS_MM, 'middle', bold: true);
                if ($this->free->isFree($text->room(), 0.6) && Stamps::isInside($text->room(), $ring)) {
                    return $text;
                }
            }
        }

        return null;
    }

    /**
     * @param list<InkText> $words
     * @param list<list<array{float, float}>> $rings
     *
     * @return list<Ring> boxes of those that stand there, counter-clockwise
     */
    private function clear(array $words, array $rings): array
    {
        $boxes = [];
        $all = array_merge(...$rings);
        $bounds = [] === $all ? [0.0, 0.0, 0.0, 0.0] : Polygon::bounds($all);
        foreach ($words as $text) {
            [$x1, $y1, $x2, $y2] = Polygon::bounds($text->room());
            if ($x1 < $bounds[2] && $x2 > $bounds[0] && $y1 < $bounds[3] && $y2 > $bounds[1]) {
                [$x1, $y1, $x2, $y2] = [$x1 - self::CLEAR_MM, $y1 - self::CLEAR_MM, $x2 + self::CLEAR_MM, $y2 + self::CLEAR_MM];
                $boxes[] = [[$x1, $y1], [$x2, $y1], [$x2, $y2], [$x1, $y2]];
            }
        }

        return $boxes;
    }

    /**
     * @param list<list<array{float, float}>> $rings as they lie on paper, where y runs down
     *
     * @return list<non-empty-list<array{float, float}>> outer ones counter-clockwise again
     */
    private static function turned(array $rings): array
    {
        return array_values(array_filter(array_map(array_reverse(...), $rings)));
    }

    /**
     * @param list<array{float, float}> $ring mm
     *
     * @return list<array{float, float}>
     */
    private function ring(array $ring): array
    {
        return array_map($this->paper->of(...), $ring);
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $tip
     */
    private static function head(array $from, array $tip): InkArea
    {
        $long = max(1e-9, hypot($tip[0] - $from[0], $tip[1] - $from[1]));
        [$ux, $uy] = [self::HEAD_MM * ($tip[0] - $from[0]) / $long, self::HEAD_MM * ($tip[1] - $from[1]) / $long];

        return new InkArea([[
            $tip, [$tip[0] - $ux - $uy / 3.0, $tip[1] - $uy + $ux / 3.0], [$tip[0] - $ux + $uy / 3.0, $tip[1] - $uy - $ux / 3.0],
        ]], 0.0);
    }

    /** @param array{float, float} $at */
    private static function dot(array $at): InkArea
    {
        return new InkArea([array_map(
            static fn (int $k): array => [$at[0] + 0.8 * cos($k * \M_PI / 8.0), $at[1] + 0.8 * sin($k * \M_PI / 8.0)],
            range(0, 15),
        )], 0.0);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function middle(array $a, array $b): array
    {
        return [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
    }
}
