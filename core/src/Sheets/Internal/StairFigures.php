<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Stairs\Flight;
use Plinth\Core\Stairs\StairPlan;

/**
 * What is told of stairs: at the foot which way they go with risers and treads, along each flight its treads and how far they reach
 * together, and across the lowest how wide it is. Each beside the stair where there is room.
 *
 * @internal
 */
final readonly class StairFigures
{
    private const TEXT_MM = 2.5;
    private const LEADING_MM = 4.0;
    /** From the stair to a dimension's line, mm of paper; the nearest that is free. */
    private const OFF_MM = [2.5, 4.5, 7.0, 10.0, 14.0, 18.0];
    /** A dimension's line lies free where it does at places so far apart, mm. */
    private const LOOK_MM = 2.0;
    private const APART_MM = 0.3;
    /** Where the words may stand: steps back from the foot, and aside, mm of paper. */
    private const FOOT = [[4.0, 0.0], [7.0, 0.0], [4.0, 6.0], [4.0, -6.0], [10.0, 0.0], [2.0, 12.0], [2.0, -12.0]];

    public function __construct(private FreePaper $free, private PlanOnPaper $paper, private Written $written, private Marks $marks)
    {
    }

    /**
     * @param list<StairPlan> $stairs
     * @param bool $withSizes dimensions too, and not words alone
     */
    public function of(array $stairs, bool $withSizes): SheetInk
    {
        $inks = [];
        foreach ($stairs as $stair) {
            $keyed = [];
            $flights = $withSizes ? $stair->flights : [];
            foreach ($flights as $k => $flight) {
                $keyed["stair.$stair->of.run".($k + 1)] = fn (): SheetInk => $this->run($flight);
            }
            $keyed["stair.$stair->of.words"] = fn (): SheetInk => $this->words($stair, $withSizes);
            if ([] !== $flights) {
                $keyed["stair.$stair->of.width"] = fn (): SheetInk => $this->width($flights[0]);
            }
            foreach ($keyed as $key => $find) {
                $ink = $this->marks->put($key, $find);
                foreach ($ink->texts as $text) {
                    $this->free->take($text->room());
                }
                foreach ($ink->lines as $line) {
                    $this->free->line($line->points);
                }
                $inks[] = $ink;
            }
        }

        return SheetInk::all($inks);
    }

    /** Along a flight, on that side of it where there is room. */
    private function run(Flight $flight): SheetInk
    {
        $words = $this->treads($flight);
        foreach ([[$flight->left, $flight->right], [$flight->right, $flight->left]] as [$near, $far]) {
            $ink = $this->beside($near, $far, $words);
            if (null !== $ink) {
                return $ink;
            }
        }

        return new SheetInk();
    }

    /** “9 × 260 = 2340”, the going told as finely as it takes to come to the whole. */
    private function treads(Flight $flight): string
    {
        $unit = $this->written->unit->drawn()->millimetres();
        $whole = $this->written->length($flight->treads * $flight->going);
        for ($decimals = 0; $decimals <= 3 && $this->written->isMetric(); ++$decimals) {
            $each = number_format($flight->going / $unit, $decimals, '.', '');
            if ($this->written->length($flight->treads * (float) $each * $unit) === $whole) {
                return "$flight->treads × $each = $whole";
            }
        }

        return "$flight->treads T = $whole";
    }

    /** Before the first riser, or behind the last one. */
    private function width(Flight $flight): SheetInk
    {
        [$fromLeft, $toLeft] = $flight->left;
        [$fromRight, $toRight] = $flight->right;
        $wide = hypot($fromRight[0] - $fromLeft[0], $fromRight[1] - $fromLeft[1]);
        foreach ([[[$fromLeft, $fromRight], [$toLeft, $toRight]], [[$toLeft, $toRight], [$fromLeft, $fromRight]]] as [$near, $far]) {
            $ink = $this->beside($near, $far, $this->written->length($wide));
            if (null !== $ink) {
                return $ink;
            }
        }

        return new SheetInk();
    }

    /**
     * A dimension alongside an edge, off it away from the one across.
     *
     * @param array{array{float, float}, array{float, float}} $near mm of the plan
     * @param array{array{float, float}, array{float, float}} $far
     */
    private function beside(array $near, array $far, string $words): ?SheetInk
    {
        [$a, $b, $c] = array_map($this->paper->of(...), [$near[0], $near[1], $far[0]]);
        $long = hypot($b[0] - $a[0], $b[1] - $a[1]);
        $normal = [($b[1] - $a[1]) / $long, ($a[0] - $b[0]) / $long];
        $way = ($c[0] - $a[0]) * $normal[0] + ($c[1] - $a[1]) * $normal[1] > 0.0 ? -1.0 : 1.0;
        $from = 0.6;
        foreach (self::OFF_MM as $off) {
            // Nothing between: beyond a wall or another flight it would be that one's.
            for (; $from <= $off; $from += 0.4) {
                $x = ($a[0] + $b[0]) / 2.0 + $way * $from * $normal[0];
                $y = ($a[1] + $b[1]) / 2.0 + $way * $from * $normal[1];
                if (!$this->free->isFree([[$x, $y], [$x, $y]], 0.2)) {
                    return null;
                }
            }
            [$dx, $dy] = [$way * $off * $normal[0], $way * $off * $normal[1]];
            $ends = [[$a[0] + $dx, $a[1] + $dy], [$b[0] + $dx, $b[1] + $dy]];
            $ink = DimensionInk::between($ends[0], $ends[1], $words);
            if ($this->isFreeAlong($ends[0], $ends[1]) && $this->free->isFree($ink->texts[0]->room(), self::APART_MM)) {
                return $ink;
            }
        }

        return null;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private function isFreeAlong(array $from, array $to): bool
    {
        $pieces = max(1, (int) ceil(hypot($to[0] - $from[0], $to[1] - $from[1]) / self::LOOK_MM));
        for ($k = 0; $k <= $pieces; ++$k) {
            [$x, $y] = [$from[0] + ($to[0] - $from[0]) * $k / $pieces, $from[1] + ($to[1] - $from[1]) * $k / $pieces];
            if (!$this->free->isFree([[$x, $y], [$x, $y]], self::APART_MM)) {
                return false;
            }
        }

        return true;
    }

    private function words(StairPlan $stair, bool $withSizes): SheetInk
    {
        $lines = [$stair->words];
        if ($withSizes && [] !== $stair->flights) {
            $fine = $this->written->isMetric() ? $this->fine($stair->rise) : $this->written->length($stair->rise);
            $lines[] = "R $fine, T ".($this->written->isMetric()
                ? $this->fine($stair->flights[0]->going)
                : $this->written->length($stair->flights[0]->going));
        }
        $way = array_map($this->paper->of(...), $stair->way);
        [$x, $y] = $way[0];
        $next = $way[1] ?? [$x, $y - 1.0];
        $long = max(1e-9, hypot($next[0] - $x, $next[1] - $y));
        [$ux, $uy] = [($next[0] - $x) / $long, ($next[1] - $y) / $long];
        for (; [] !== $lines; array_pop($lines)) {
            $half = max(array_map(static fn (string $w): float => (new InkText(0.0, 0.0, $w, self::TEXT_MM))->width() / 2.0, $lines));
            $high = (\count($lines) - 1) * self::LEADING_MM + self::TEXT_MM;
            foreach (self::FOOT as [$back, $aside]) {
                // As far off that the words' box is clear of the first riser, whichever way it runs.
                $off = $back - 2.0 + abs($ux) * $half + abs($uy) * $high / 2.0;
                [$mx, $my] = [$x - $off * $ux - $aside * $uy, $y - $off * $uy + $aside * $ux];
                $texts = [];
                foreach ($lines as $k => $words) {
                    $foot = $my - $high / 2.0 + self::TEXT_MM + $k * self::LEADING_MM;
                    $texts[] = new InkText($mx, $foot, $words, self::TEXT_MM, 'middle');
                }
                if ([] === array_filter($texts, fn (InkText $t): bool => !$this->free->isFree($t->room(), self::APART_MM))) {
                    return new SheetInk([], [], $texts);
                }
            }
        }

        return new SheetInk();
    }

    /** To a tenth of a millimetre, where that is not none. */
    private function fine(float $mm): string
    {
        $unit = $this->written->unit->drawn()->millimetres();
        $decimals = (int) round(log10($unit)) + 1;

        return rtrim(rtrim(number_format($mm / $unit, $decimals, '.', ''), '0'), '.');
    }
}
