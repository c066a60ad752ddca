<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Sheets\Internal\FreePaper;
use Plinth\Core\Sheets\Internal\HatchStrokes;
use Plinth\Core\Sheets\Internal\Stamps;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Site\Clearance;
use Plinth\Core\Units\Bearing;

/**
 * The site: boundaries with the lengths of their legs and their area, the building on it hatched, and how near it comes to them.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class SiteSheet
{
    private const FIGURE_MM = 2.5;
    private const OVER_LINE_MM = 0.9;
    private const HATCH_MM = 1.5;
    /** A boundary's chain line: long, dot, dot (ISO 128-2, 05). */
    private const BOUNDARY = [24.0, 3.0, 1.0, 3.0, 1.0, 3.0];

    /**
     * @param list<Contour> $boundaries
     * @param list<DerivedStorey> $storeys
     * @param float|null $up bearing of up on the plan, degrees clockwise from north; null where nobody has said
     */
    public static function of(
        array $boundaries,
        array $storeys,
        PlanOnPaper $paper,
        Written $written,
        SheetView $view,
        ?float $up = null,
    ): SheetInk {
        $up = $view->shows(Shows::Bearings) ? $up : null;
        $free = new FreePaper();
        [$areas, $lines, $texts] = [[], [], []];
        $rings = array_merge([], ...array_map(
            static fn (DerivedStorey $s): array => array_map(static fn (BodyOutline $o): array => $o->outer, $s->outlines),
            $storeys,
        ));
        $footprint = [] === $rings ? [] : Overlay::union($rings);
        foreach ($footprint as ['outer' => $outer]) {
            $ring = array_map($paper->of(...), $outer);
            $areas[] = new InkArea([$ring], 0.92);
            $lines[] = new InkLine($ring, InkLine::WIDE, closed: true);
            $free->line($ring, true);
            $free->fill($ring);
            foreach (HatchStrokes::in($ring, 45.0, self::HATCH_MM) as $stroke) {
                $lines[] = new InkLine($stroke, InkLine::FINE);
            }
        }
        foreach ($boundaries as $boundary) {
            $ring = array_map($paper->of(...), $boundary->points());
            $lines[] = new InkLine($ring, InkLine::MEDIUM, self::BOUNDARY, true);
        }
        foreach ($view->shows(Shows::Dimensions) ? $boundaries : [] as $boundary) {
            foreach (array_keys($boundary->corners) as $i) {
                // With its bearing where there is room for both.
                foreach (null === $up ? [null] : [$up, null] as $north) {
                    $text = self::leg($boundary, $i, $paper, $written, $north);
                    if (null !== $text && $free->isFree($text->room(), 0.2)) {
                        $texts[] = $text;
                        $free->take($text->room());
                        break;
                    }
                }
            }
            // Lengths of legs stand along them, aslant; whatever comes then keeps off the legs.
            $free->line(array_map($paper->of(...), $boundary->points()), true);
            $clear = self::clearances($boundary, array_column($footprint, 'outer'), $paper, $written, $free);
            array_push($lines, ...$clear->lines);
            array_push($texts, ...$clear->texts);
            $points = $boundary->points();
            array_push($texts, ...Stamps::in([[
                array_map($paper->of(...), $points),
                $paper->of(Polygon::labelPoint($points)),
                'Site',
                $written->area(abs($boundary->area())),
            ]], $free));
        }

        return new SheetInk($areas, $lines, $texts);
    }

    /** The length of a leg along it, outside the site, and which way it runs where up's bearing is given; an arc's chord has none. */
    private static function leg(Contour $boundary, int $i, PlanOnPaper $paper, Written $written, ?float $up): ?InkText
    {
        [$from, $to] = [$boundary->corners[$i], $boundary->corners[($i + 1) % \count($boundary->corners)]];
        [[$ax, $ay], [$bx, $by]] = [$paper->of($from->toArray()), $paper->of($to->toArray())];
        $words = $written->length($boundary->arc($i)?->length() ?? $from->distanceTo($to));
        if (null !== $up && null === $boundary->arc($i)) {
            $words .= ' · '.Bearing::along($to->x - $from->x, $to->y - $from->y)->turned($up)->written();
        }
        if ((new InkText(0.0, 0.0, $words, self::FIGURE_MM))->width() > hypot($bx - $ax, $by - $ay) - 2.0) {
            return null;
        }
        $degrees = rad2deg(atan2($ay - $by, $bx - $ax));
        // A boundary runs counter-clockwise on the plan: to its right is outside.
        $isTurned = $degrees > 90.0 + 1e-6 || $degrees <= -90.0 + 1e-6;
        $reads = $isTurned ? $degrees + ($degrees > 0.0 ? -180.0 : 180.0) : $degrees;
        $isOutsideUp = $isTurned === ($boundary->area() > 0.0);
        $off = $isOutsideUp ? self::OVER_LINE_MM : -self::OVER_LINE_MM - self::FIGURE_MM;

        return new InkText(
            ($ax + $bx) / 2.0 - $off * sin(deg2rad($reads)),
            ($ay + $by) / 2.0 - $off * cos(deg2rad($reads)),
            $words,
            self::FIGURE_MM,
            'middle',
            $reads,
        );
    }

    /** @param list<Ring> $footprint */
    private static function clearances(Contour $boundary, array $footprint, PlanOnPaper $paper, Written $written, FreePaper $free): SheetInk
    {
        [$lines, $texts] = [[], []];
        foreach ([] === $footprint ? [] : Clearance::of($boundary, $footprint) as $clearance) {
            if ($clearance->mm < 1.0) {
                continue;
            }
            [$a, $b] = [$paper->of($clearance->building->toArray()), $paper->of($clearance->line->toArray())];
            $words = $written->length($clearance->mm);
            [$dx, $dy] = [$b[0] - $a[0], $b[1] - $a[1]];
            $degrees = rad2deg(atan2(-$dy, $dx));
            $degrees = $degrees > 90.0 + 1e-6 ? $degrees - 180.0 : ($degrees <= -90.0 + 1e-6 ? $degrees + 180.0 : $degrees);
            $text = new InkText(
                ($a[0] + $b[0]) / 2.0 - self::OVER_LINE_MM * sin(deg2rad($degrees)),
                ($a[1] + $b[1]) / 2.0 - self::OVER_LINE_MM * cos(deg2rad($degrees)),
                $words,
                self::FIGURE_MM,
                'middle',
                $degrees,
            );
            if ($free->isFree($text->room(), 0.2)) {
                $lines[] = new InkLine([$a, $b], InkLine::NARROW);
                $texts[] = $text;
                $free->take($text->room());
                $free->line([$a, $b]);
            }
        }

        return new SheetInk([], $lines, $texts);
    }
}
