<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Projection\CutFace;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Projection\ViewLine;
use Plinth\Core\Sheets\Internal\BesideInk;
use Plinth\Core\Sheets\Internal\ChainInk;
use Plinth\Core\Sheets\Internal\FreePaper;
use Plinth\Core\Sheets\Internal\Marks;
use Plinth\Core\Sheets\Internal\SheetSigns;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;

/**
 * A side or a section as it is drawn on a sheet: what is cut filled and wide, what is seen narrow, what is hidden dashed (ISO 128); the
 * ground, levels of storeys on the right, heights between them on the left.
 */
final class SideSheet
{
    private const CUT_GREY = 0.72;
    private const CHAIN_MM = 10.0;
    private const NEXT_MM = 9.0;
    /** The ground goes on so far beside the building, mm of paper. */
    private const GROUND_MM = 8.0;
    private const LEVEL_MM = 12.0;
    /** Levels that are told stand so far apart at least, mm of paper. */
    private const APART_MM = 4.2;

    /**
     * @param array<string, array{float, string}> $levels mm over the project's zero and name, of storeys by id
     * @param float|null $ground mm over the project's zero, where it is drawn
     */
    public static function of(
        DrawnView $drawn,
        array $levels,
        PlanOnPaper $paper,
        Written $written = new Written(),
        PlanBeside $beside = new PlanBeside(),
        ?SheetView $view = null,
        ?float $ground = 0.0,
    ): SheetInk {
        $view ??= new SheetView('', ViewKind::Side, '', 0.0, 0.0, shows: Shows::usually(ViewKind::Side));
        $free = new FreePaper();
        $inks = [self::lines($drawn, $paper, $view)];
        if (null !== $beside->picture && $view->shows(Shows::Ink)) {
            array_unshift($inks, new SheetInk([], [], [], [$beside->picture->on($paper)]));
        }
        $shown = new PlanBeside(
            lines: $view->shows(Shows::Drawn) ? $beside->lines : [],
            dimensions: $view->shows(Shows::Drawn) ? $beside->dimensions : [],
            notes: $view->shows(Shows::Notes) ? $beside->notes : [],
        );
        $inks[] = BesideInk::of([], $shown, $paper, $written);
        $bounds = $drawn->bounds();
        if (null === $bounds) {
            return SheetInk::all($inks);
        }
        [$left, , $right] = $bounds;
        [, $low, , $high] = self::built($drawn) ?? $bounds;
        if (null !== $ground) {
            $wide = self::GROUND_MM * $paper->scale;
            $ends = [$paper->of([$left - $wide, $ground]), $paper->of([$right + $wide, $ground])];
            $inks[] = new SheetInk([], [new InkLine($ends, InkLine::BROAD)]);
        }
        foreach ($inks as $ink) {
            foreach ($ink->texts as $text) {
                $free->take($text->room());
            }
        }
        $told = [
            ...array_filter($levels, static fn (array $l): bool => $l[0] > $low - 1.0 && $l[0] < $high - 1.0),
            ...self::roofLevels($drawn),
            'top' => [$high, 'top'],
        ];
        uasort($told, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        if ($view->shows(Shows::Levels)) {
            $inks[] = self::levels($told, $right, $paper, $written);
        }
        if ($view->shows(Shows::Dimensions)) {
            $inks[] = self::heights($told, [$left, $low, $high], $ground, $paper, $written, $view, $free);
        }

        return SheetInk::all($inks);
    }

    /** @return array{float, float, float, float}|null how far what is built reaches: objects stand beside it */
    private static function built(DrawnView $drawn): ?array
    {
        $isBuilt = static fn (ViewLine|CutFace $of): bool => BodyKind::Object !== $of->kind;

        [$lines, $faces] = [array_filter($drawn->lines, $isBuilt), array_filter($drawn->faces, $isBuilt)];

        return (new DrawnView(array_values($lines), array_values($faces)))->bounds();
    }

    /** @return array<string, array{float, string}> eaves and ridge, where a roof is seen: mm over the project's zero, and name */
    private static function roofLevels(DrawnView $drawn): array
    {
        $heights = [];
        foreach ($drawn->lines as $line) {
            if (BodyKind::Roof === $line->kind && LineRole::Hidden !== $line->role) {
                $heights[$line->body] = [...($heights[$line->body] ?? []), $line->from[1], $line->to[1]];
            }
        }
        // Of several the highest: a porch has eaves of its own.
        usort($heights, static fn (array $a, array $b): int => max($b) - min($b) <=> max($a) - min($a));
        [$low, $high] = [] === $heights ? [0.0, 0.0] : [min($heights[0]), max($heights[0])];

        return $high - $low < 100.0 ? [] : ['eaves' => [$low, 'eaves'], 'ridge' => [$high, 'ridge']];
    }

    private static function lines(DrawnView $drawn, PlanOnPaper $paper, SheetView $view): SheetInk
    {
        $areas = array_map(
            static fn (CutFace $f): InkArea => new InkArea(
                array_map(static fn (array $ring): array => array_map($paper->of(...), $ring), [$f->outer, ...$f->holes]),
                \in_array($f->kind, [BodyKind::Pane, BodyKind::Leaf], true) ? 1.0 : self::CUT_GREY,
            ),
            $drawn->faces,
        );
        $lines = [];
        foreach ($drawn->lines as $line) {
            if (LineRole::Hidden === $line->role && !$view->shows(Shows::Hidden)) {
                continue;
            }
            $lines[] = new InkLine([$paper->of($line->from), $paper->of($line->to)], match ($line->role) {
                LineRole::Cut => InkLine::WIDE,
                LineRole::Visible => InkLine::NARROW,
                LineRole::Hidden => InkLine::FINE,
            }, LineRole::Hidden === $line->role ? [12.0, 3.0] : []);
        }

        return new SheetInk($areas, $lines);
    }

    /** @param array<string, array{float, string}> $told from below */
    private static function levels(array $told, float $right, PlanOnPaper $paper, Written $written): SheetInk
    {
        $inks = [];
        $before = \INF;
        $last = -\INF;
        foreach ($told as $id => [$mm, $name]) {
            if ($mm - $last < 1.0) {
                continue; // told already
            }
            $last = $mm;
            [$x, $y] = $paper->of([$right, $mm]);
            $at = min($y, $before - self::APART_MM);
            $before = $at;
            $words = $written->level($mm).('top' === $id || '' === $name ? '' : " $name");
            $inks[] = SheetSigns::level($x + self::LEVEL_MM + 3.0, $at, $words, 'top' !== $id);
            $inks[] = new SheetInk([], [
                new InkLine([[$x + 2.0, $y], [$x + 5.0, $y], [$x + self::LEVEL_MM, $at], [$x + self::LEVEL_MM + 6.0, $at]], InkLine::FINE),
            ]);
        }

        return SheetInk::all($inks);
    }

    /**
     * @param array<string, array{float, string}> $told from below
     * @param array{float, float, float} $reach its left end, how deep and how high it is
     */
    private static function heights(
        array $told,
        array $reach,
        ?float $ground,
        PlanOnPaper $paper,
        Written $written,
        SheetView $view,
        FreePaper $free,
    ): SheetInk {
        [$left, $low, $high] = $reach;
        $marks = new Marks($view->marks);
        $ink = new ChainInk($free, $paper, $written->unit->format(), $marks);
        $places = [];
        foreach ($told as $id => [$mm]) {
            $places[] = [$mm, $id];
        }
        if (null !== $ground && $ground > $low - 1.0 && $ground < $high - 1.0) {
            $places[] = [$ground, 'ground'];
        }
        usort($places, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $kept = [];
        foreach ($places as $place) {
            if ([] === $kept || $place[0] - $kept[\count($kept) - 1][0] > 1.0) {
                $kept[] = $place;
            }
        }
        $chains = [
            ...(\count($kept) > 2 ? ['heights' => $kept] : []),
            ...(\count($kept) > 1 ? ['overall' => [$kept[0], $kept[\count($kept) - 1]]] : []),
        ];
        $row = 0;
        $side = ChainSide::Left;
        foreach ($chains as $name => $chain) {
            if ($marks->isLeftOut("left.$name")) {
                continue;
            }
            $out = -$left + (self::CHAIN_MM + self::NEXT_MM * $row++) * $paper->scale + $ink->movedOut("left.$name", $side);
            foreach ($ink->chain($side, $chain, $out, "left.$name") as $mm) {
                $ink->lines[] = new InkLine([
                    $paper->of($side->at($mm, -$left + 2.0 * $paper->scale)), $paper->of($side->at($mm, $out + 2.0 * $paper->scale)),
                ], InkLine::FINE);
            }
        }

        return new SheetInk([], $ink->lines, $ink->texts);
    }
}
