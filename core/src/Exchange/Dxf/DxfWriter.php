<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Exchange\Dxf\Internal\DxfFile;
use Plinth\Core\Exchange\Dxf\Internal\PlanEntities;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;

/**
 * Writes a storey, all storeys beside each other, or a side or a section, as an ASCII DXF drawing (AC1015), in the unit that its project is
 * drawn in ($INSUNITS); feet and inches in inches.
 *
 * Layers of a plan are named in {@see DxfLayers}; of a side or a section they are `cut` (what is cut, closed polylines), `seen` and
 * `hidden`, x along its line and y the height. Held against ezdxf and GDAL in the tests.
 */
final class DxfWriter
{
    public const TEXT_HEIGHT_MM = 180.0;
    /** Colours of the published reference by their numbers, as far as they are told apart. */
    private const COLOURS = [
        1 => [255, 0, 0], 2 => [255, 255, 0], 3 => [0, 255, 0], 4 => [0, 255, 255], 5 => [0, 0, 255], 6 => [255, 0, 255],
        8 => [128, 128, 128], 30 => [255, 127, 0], 150 => [0, 127, 255], 94 => [0, 127, 0],
    ];
    private const VIEW_LAYERS = [
        'cut' => [7, DxfFile::CONTINUOUS],
        'seen' => [8, DxfFile::CONTINUOUS],
        'hidden' => [9, DxfFile::DASHED],
        'drawn' => [7, DxfFile::CONTINUOUS],
        'dimensions' => [3, DxfFile::CONTINUOUS],
        'notes' => [2, DxfFile::CONTINUOUS],
        'remarks' => [1, DxfFile::CONTINUOUS],
    ];
    /** Between storeys that stand beside each other, mm. */
    private const APART_MM = 8000.0;

    /**
     * @param list<string> $remarks what whoever reads it should know: as comments, and as text beside the drawing
     * @param AreaUnit|null $areas what is usual beside the lengths where it is null
     */
    public static function write(
        Storey $storey,
        DerivedStorey $derived,
        PlanBeside $beside = new PlanBeside(),
        DisplayUnit $unit = DisplayUnit::Millimetre,
        array $remarks = [],
        ?AreaUnit $areas = null,
        DxfLayers $layers = DxfLayers::Plain,
    ): string {
        return self::building([[$storey, $derived, $beside]], $unit, $remarks, $areas, $layers);
    }

    /**
     * Storeys one to the right of the other, each with its name under it where there are several.
     *
     * @param list<array{Storey, DerivedStorey, PlanBeside}> $storeys
     * @param list<string> $remarks
     * @param FireOnPlan|null $fire enclosures, each class on a layer of its own, and ways out
     */
    public static function building(
        array $storeys,
        DisplayUnit $unit = DisplayUnit::Millimetre,
        array $remarks = [],
        ?AreaUnit $areas = null,
        DxfLayers $layers = DxfLayers::Plain,
        ?FireOnPlan $fire = null,
    ): string {
        $file = new DxfFile($unit, [...self::named(PlanEntities::LAYERS, $layers), ...self::ofClasses($fire, $layers)], $remarks);
        $written = new Written($unit, $areas);
        $right = 0.0;
        $corner = null;
        foreach ($storeys as $i => [$storey, $derived, $beside]) {
            $drawn = new PlanEntities($file, $layers, $written, $storey, $derived, $beside, $fire);
            $extent = $drawn->extent();
            $by = 0 === $i || null === $extent ? 0.0 : $right + self::APART_MM - $extent[0];
            $drawn->draw($by);
            if (null !== $extent) {
                $corner ??= [$extent[0], $extent[1]];
                $right = $by + $extent[2];
                if (\count($storeys) > 1 && '' !== $storey->name) {
                    [$x, $y] = [$by + ($extent[0] + $extent[2]) / 2.0, $extent[1] - 4.0 * self::TEXT_HEIGHT_MM];
                    $file->text($layers->named('notes'), $storey->name, $x, $y, 1.4 * self::TEXT_HEIGHT_MM);
                }
            }
        }
        self::beside($file, $layers, $remarks, ...$corner ?? [0.0, 0.0]);

        return $file->written();
    }

    /** @return array<string, array{int, string}> colour and kind of line of the layer of each class */
    private static function ofClasses(?FireOnPlan $fire, DxfLayers $layers): array
    {
        $of = [];
        foreach ($fire?->key() ?? [] as $k => $class) {
            [$nearest, $best] = [7, \INF];
            foreach (self::COLOURS as $number => $rgb) {
                $off = array_sum(array_map(static fn (int $a, int $b): int => ($a - $b) ** 2, $rgb, $class->rgb()));
                [$nearest, $best] = $off < $best ? [$number, $off] : [$nearest, $best];
            }
            $of[$layers->ofClass($k + 1, $class->name)] = [$nearest, DxfFile::CONTINUOUS];
        }

        return $of;
    }

    /** @param list<string> $remarks */
    public static function view(
        DrawnView $view,
        DisplayUnit $unit = DisplayUnit::Millimetre,
        array $remarks = [],
        PlanBeside $beside = new PlanBeside(),
        DxfLayers $layers = DxfLayers::Plain,
    ): string {
        $file = new DxfFile($unit, self::named(self::VIEW_LAYERS, $layers), $remarks);
        foreach ($view->faces as $face) {
            foreach ([$face->outer, ...$face->holes] as $ring) {
                $file->polyline($layers->named('cut'), array_map(static fn (array $p): array => [$p[0], $p[1], 0.0], $ring));
            }
        }
        foreach ($view->lines as $line) {
            if (LineRole::Cut !== $line->role) {
                $file->line($layers->named(LineRole::Visible === $line->role ? 'seen' : 'hidden'), $line->from, $line->to);
            }
        }
        self::drawn($file, $layers, new Written($unit), $beside);
        self::beside($file, $layers, $remarks, ...\array_slice($view->bounds() ?? [0.0, 0.0], 0, 2));

        return $file->written();
    }

    /**
     * What was drawn freely, dimensions by hand, notes.
     *
     * @internal
     */
    public static function drawn(DxfFile $file, DxfLayers $layers, Written $written, PlanBeside $beside, float $by = 0.0): void
    {
        foreach ($beside->lines as $line) {
            $corners = self::corners($line, $by);
            $kind = match ($line->kind) {
                LineKind::Dashed => DxfFile::DASHED,
                default => [] === $line->kind->dashes() ? null : DxfFile::CHAIN,
            };
            $file->polyline($layers->named('drawn'), $corners, $line->closed, $kind);
            if (Fill::None !== $line->fill) {
                $file->hatch($layers->named('drawn'), [$corners], $line->fill->directions());
            }
        }
        foreach ($beside->dimensions as $dimension) {
            [$a, $b] = $dimension->line();
            $file->dimension(
                $layers->named('dimensions'),
                [$dimension->from->x + $by, $dimension->from->y],
                [$dimension->to->x + $by, $dimension->to->y],
                [[$a->x + $by, $a->y], [$b->x + $by, $b->y]],
                $written->length($dimension->measures()),
                self::TEXT_HEIGHT_MM,
            );
        }
        foreach ($beside->notes as [[$x, $y], $words, $to]) {
            $file->text($layers->named('notes'), $words, $x + $by, $y, self::TEXT_HEIGHT_MM);
            if (null !== $to) {
                $file->line($layers->named('notes'), [$x + $by, $y], [$to[0] + $by, $to[1]]);
            }
        }
    }

    /** @return list<array{float, float, float}> of a line that was drawn freely, its arcs as arcs */
    private static function corners(DrawnLine $line, float $by): array
    {
        $corners = [];
        $count = \count($line->corners);
        foreach ($line->corners as $i => $corner) {
            $rise = $line->rises[$i] ?? 0.0;
            $chord = $corner->distanceTo($line->corners[($i + 1) % $count]);
            // A bulge is twice its rise over its chord, and positive to the right.
            $isEdge = $line->closed || $i < $count - 1;
            $corners[] = [$corner->x + $by, $corner->y, $isEdge && $chord > 0.0 ? -2.0 * $rise / $chord : 0.0];
        }

        return $corners;
    }

    /**
     * What whoever reads it should know, under the drawing's lower left corner.
     *
     * @param list<string> $remarks
     */
    private static function beside(DxfFile $file, DxfLayers $layers, array $remarks, float $x = 0.0, float $y = 0.0): void
    {
        foreach ($remarks as $i => $remark) {
            $file->text($layers->named('remarks'), $remark, $x, $y - (8.0 + 2.0 * $i) * self::TEXT_HEIGHT_MM, self::TEXT_HEIGHT_MM);
        }
    }

    /**
     * @param array<string, array{int, string}> $layers
     *
     * @return array<string, array{int, string}>
     */
    private static function named(array $layers, DxfLayers $by): array
    {
        return array_combine(array_map($by->named(...), array_keys($layers)), array_values($layers));
    }
}
