<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SectionMark;
use Plinth\Core\Sheets\SheetInk;

/**
 * Axes with their names, and where sections are cut: beyond all that is drawn.
 *
 * @internal
 */
final class PlanMarks
{
    /** Round a figure lines are left out for so much, mm. */
    private const CLEAR_MM = 0.3;
    private const JOG_MM = 2.5;
    /** From the outermost chain's figure to bubbles and section marks, mm of paper. */
    private const BEYOND_MM = 9.0;
    private const BUBBLE_MM = 4.0;
    /** A thin chain line: long, dot (ISO 128-2, 04). */
    private const CHAIN_LINE = [24.0, 6.0, 1.0, 6.0];

    /** @var list<SheetInk> */
    private array $inks = [];
    /** @var array{float, float, float, float} of what is built, least x and y, most x and y; mm of paper */
    private readonly array $built;

    /** @param array{float, float, float, float} $extent of what is built, mm of the plan */
    public function __construct(
        private readonly FreePaper $free,
        private readonly PlanOnPaper $paper,
        private readonly Marks $marks,
        array $extent,
    ) {
        [[$x1, $y2], [$x2, $y1]] = [$paper->of([$extent[0], $extent[1]]), $paper->of([$extent[2], $extent[3]])];
        $this->built = [$x1, $y1, $x2, $y2];
    }

    /**
     * @param list<array{label: string, along: string, at: float}> $axes mm of the plan
     * @param list<SectionMark> $sections
     * @param SheetInk $beside what they stand outside of
     */
    public function of(array $axes, array $sections, SheetInk $beside): SheetInk
    {
        $drawn = $beside->bounds() ?? $this->built;
        foreach ($axes as ['label' => $label, 'along' => $along, 'at' => $at]) {
            if (!$this->marks->isLeftOut("axis.$label")) {
                $this->axis($label, 'x' === $along, $this->paper->of([$at, $at]), $drawn);
            }
        }
        $drawn = SheetInk::all([$beside, ...$this->inks])->bounds() ?? $drawn;
        foreach ($sections as $section) {
            $this->section($section, $drawn);
        }

        return SheetInk::all($this->inks);
    }

    /**
     * @param array{float, float} $on a place on it, mm of paper
     * @param array{float, float, float, float} $drawn
     */
    private function axis(string $label, bool $isUpright, array $on, array $drawn): void
    {
        $off = $this->marks->along("axis.$label", $isUpright ? [0.0, 1.0] : [1.0, 0.0]);
        [$x, $y] = $on;
        $end = ($isUpright ? $drawn[1] : $drawn[0]) - self::BEYOND_MM + self::BUBBLE_MM + $off;
        [$from, $to] = $isUpright
            ? [[$x, $end], [$x, $this->built[3] + self::BUBBLE_MM]]
            : [[$this->built[2] + self::BUBBLE_MM, $y], [$end, $y]];
        $this->chainLine($from, $to);
        $sign = $isUpright
            ? SheetSigns::bubble($x, $end - self::BUBBLE_MM, $label)
            : SheetSigns::bubble($end - self::BUBBLE_MM, $y, $label);
        $this->inks[] = $sign->marked("axis.$label");
    }

    /** @param array{float, float, float, float} $drawn what marks stand outside of */
    private function section(SectionMark $section, array $drawn): void
    {
        $line = array_map(fn (Point $p): array => $this->paper->of($p->toArray()), $section->line);
        $last = \count($line) - 1;
        foreach ([[$line[0], $line[min(1, $last)], 1.0], [$line[$last], $line[max(0, $last - 1)], -1.0]] as [$end, $next, $way]) {
            $key = "section.$section->name.".($way > 0.0 ? 'from' : 'to');
            $long = hypot($next[0] - $end[0], $next[1] - $end[1]);
            if ($long < 1e-6 || $this->marks->isLeftOut($key)) {
                continue;
            }
            $on = [($next[0] - $end[0]) / $long, ($next[1] - $end[1]) / $long];
            // As one looks the line runs from left to right: ahead is to its left on the plan, which on paper is up from rightwards.
            $looks = [$way * $on[1], -$way * $on[0]];
            // Back along the line until it is outside all that is drawn.
            $out = \INF;
            foreach ([0, 1] as $k) {
                if (abs($on[$k]) > 1e-6) {
                    $edge = $on[$k] > 0.0 ? $drawn[$k] - self::BEYOND_MM : $drawn[$k + 2] + self::BEYOND_MM;
                    $out = min($out, max(0.0, ($end[$k] - $edge) / $on[$k]));
                }
            }
            $out -= $this->marks->along($key, $on);
            $at = [$end[0] - $out * $on[0], $end[1] - $out * $on[1]];
            $this->inks[] = SheetSigns::cut($at, $on, $looks, $section->name)->marked($key);
            // A thin chain line leads as far as the building, beside whatever is written.
            $edge = $this->edge($at, $on, $next);
            if (null !== $edge) {
                $this->chainLine([$at[0] + 7.0 * $on[0], $at[1] + 7.0 * $on[1]], $edge);
            }
        }
    }

    /**
     * Beside whatever is written.
     *
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private function chainLine(array $from, array $to): void
    {
        foreach ($this->free->beside($from, $to, self::CLEAR_MM) as $piece) {
            $this->inks[] = new SheetInk([], [new InkLine($piece, InkLine::FINE, self::CHAIN_LINE)]);
        }
    }

    /**
     * Where a level or upright line from outside comes to what is built.
     *
     * @param array{float, float} $from mm of paper
     * @param array{float, float} $on a unit vector
     * @param array{float, float} $until no further
     *
     * @return array{float, float}|null null for a slanting one
     */
    private function edge(array $from, array $on, array $until): ?array
    {
        $along = abs($on[0]) > abs($on[1]) ? 0 : 1;
        if (abs($on[1 - $along]) > 1e-6) {
            return null;
        }
        $edge = $until;
        $edge[$along] = $on[$along] > 0.0
            ? min($until[$along], $this->built[$along] - 2.0)
            : max($until[$along], $this->built[$along + 2] + 2.0);
        $edge[1 - $along] = $from[1 - $along];

        return $edge;
    }

    /**
     * Where cutting lines have jogs: a wide stroke each way.
     *
     * @param list<SectionMark> $sections
     */
    public static function jogs(array $sections, PlanOnPaper $paper): SheetInk
    {
        $strokes = [];
        foreach ($sections as $section) {
            $line = array_map(static fn (Point $p): array => $paper->of($p->toArray()), $section->line);
            for ($i = 1; $i < \count($line) - 1; ++$i) {
                foreach ([$line[$i - 1], $line[$i + 1]] as [$x, $y]) {
                    [$dx, $dy] = [$x - $line[$i][0], $y - $line[$i][1]];
                    $part = min(1.0, self::JOG_MM / max(1e-9, hypot($dx, $dy)));
                    $strokes[] = new InkLine([$line[$i], [$line[$i][0] + $part * $dx, $line[$i][1] + $part * $dy]], InkLine::WIDE);
                }
            }
        }

        return new SheetInk([], $strokes);
    }
}
