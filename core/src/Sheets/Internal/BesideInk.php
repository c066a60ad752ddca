<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Drafting\DrawnDimension;
use Plinth\Core\Drafting\DrawnLine;
use Plinth\Core\Drafting\Fill;
use Plinth\Core\Drafting\LineKind;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\Written;
use Plinth\Core\Stairs\StairPlan;

/**
 * Draws what stands and lies beside walls: objects, stairs, what was drawn freely, dimensions by hand, notes.
 *
 * @internal
 */
final class BesideInk
{
    /** Figures and notes, mm. */
    private const TEXT_MM = 2.5;
    private const HEAD_MM = 2.5;
    /** Between lines of a hatch, mm of paper. */
    private const HATCH_MM = 2.0;
    private const FILL_GREY = 0.55;

    /** @var list<InkArea> */
    private array $areas = [];
    /** @var list<InkLine> */
    private array $lines = [];
    /** @var list<InkText> */
    private array $texts = [];

    private function __construct(private readonly PlanOnPaper $paper)
    {
    }

    /** @param list<PlacedObject> $objects */
    public static function of(array $objects, PlanBeside $beside, PlanOnPaper $paper, Written $written): SheetInk
    {
        $ink = new self($paper);
        array_map($ink->object(...), $objects);
        array_map($ink->stair(...), $beside->stairs);
        foreach ($beside->over as $ring) {
            $dashes = LineKind::Dashed->dashes();
            $ink->lines[] = new InkLine(array_map($paper->of(...), $ring), InkLine::NARROW, $dashes, true);
        }
        array_map($ink->line(...), $beside->lines);
        foreach ($beside->dimensions as $dimension) {
            $ink->dimension($dimension, $written->length($dimension->measures()));
        }
        foreach ($beside->notes as [$at, $words, $to]) {
            $ink->note($at, $words, $to);
        }

        return new SheetInk($ink->areas, $ink->lines, $ink->texts);
    }

    private function object(PlacedObject $object): void
    {
        $kind = ObjectKind::tryFrom($object->kind);
        [$cos, $sin] = [cos(deg2rad($object->degrees)), sin(deg2rad($object->degrees))];
        foreach (null === $kind ? [] : (new ObjectForm($kind, $object->width, $object->depth, $object->height))->plan() as $ring) {
            $placed = array_map(fn (array $p): array => $this->paper->of([
                $object->at->x + $cos * $p[0] - $sin * $p[1], $object->at->y + $sin * $p[0] + $cos * $p[1],
            ]), $ring);
            // What lies lower does not show through.
            $this->areas[] = new InkArea([$placed], 1.0);
            $this->lines[] = new InkLine($placed, InkLine::FINE, closed: true);
        }
    }

    private function stair(StairPlan $stair): void
    {
        foreach ($stair->seen as $line) {
            $this->lines[] = new InkLine(array_map($this->paper->of(...), $line), InkLine::NARROW);
        }
        foreach ($stair->beyond as $line) {
            $this->lines[] = new InkLine(array_map($this->paper->of(...), $line), InkLine::FINE, LineKind::Dashed->dashes());
        }
        if (null !== $stair->cut) {
            $this->lines[] = new InkLine(array_map($this->paper->of(...), $stair->cut), InkLine::MEDIUM);
        }
        $way = array_map($this->paper->of(...), $stair->way);
        $this->lines[] = new InkLine($way, InkLine::NARROW);
        if (\count($way) > 1) {
            $this->head($way[\count($way) - 1], $way[\count($way) - 2]);
        }
    }

    private function line(DrawnLine $line): void
    {
        $points = [];
        foreach ($line->stretches() as $i => [$from]) {
            foreach ((new Contour($line->corners, $line->rises))->pieces($i) as [$at]) {
                $points[] = $at;
            }
        }
        if (!$line->closed) {
            $points[] = $line->corners[\count($line->corners) - 1]->toArray();
        }
        $onPaper = array_map($this->paper->of(...), $points);
        if (Fill::Solid === $line->fill) {
            $this->areas[] = new InkArea([$onPaper], self::FILL_GREY);
        }
        foreach ($line->fill->directions() as $degrees) {
            foreach (HatchStrokes::in($onPaper, $degrees, self::HATCH_MM) as $stroke) {
                $this->lines[] = new InkLine($stroke, InkLine::FINE);
            }
        }
        $width = $line->kind->isWide() ? InkLine::WIDE : InkLine::NARROW;
        $this->lines[] = new InkLine($onPaper, $width, $line->kind->dashes(), $line->closed);
    }

    private function dimension(DrawnDimension $dimension, string $figure): void
    {
        [$start, $end] = $dimension->line();
        [$from, $to] = [$this->paper->of($start->toArray()), $this->paper->of($end->toArray())];
        foreach ([[$dimension->from, $from], [$dimension->to, $to]] as [$place, $on]) {
            $this->lines[] = new InkLine([$this->paper->of($place->toArray()), $on], InkLine::FINE);
        }
        $ink = DimensionInk::between($from, $to, $figure);
        array_push($this->lines, ...$ink->lines);
        array_push($this->texts, ...$ink->texts);
    }

    /**
     * @param array{float, float} $at
     * @param array{float, float}|null $to
     */
    private function note(array $at, string $words, ?array $to): void
    {
        [$x, $y] = $this->paper->of($at);
        $text = new InkText($x, $y + self::TEXT_MM / 2.0, $words, self::TEXT_MM, 'middle');
        $this->texts[] = $text;
        if (null !== $to) {
            $head = $this->paper->of($to);
            $half = $text->width() / 2.0 + 1.0;
            $from = [$x + ($head[0] > $x + $half ? $half : ($head[0] < $x - $half ? -$half : 0.0)), $y];
            $foot = 0.0 === $from[0] - $x ? $y + ($head[1] > $y ? 1.0 : -1.0) * self::TEXT_MM : $y;
            $this->lines[] = new InkLine([[$from[0], $foot], $head], InkLine::NARROW);
            $this->head($head, [$from[0], $foot]);
        }
    }

    /**
     * An arrow's head (ISO 129-1), open, 30° wide.
     *
     * @param array{float, float} $at
     * @param array{float, float} $from
     */
    private function head(array $at, array $from): void
    {
        $angle = atan2($at[1] - $from[1], $at[0] - $from[0]);
        $barb = static fn (float $turn): array => [
            $at[0] - self::HEAD_MM * cos($angle + $turn), $at[1] - self::HEAD_MM * sin($angle + $turn),
        ];
        $this->lines[] = new InkLine([$barb(0.26), $at, $barb(-0.26)], InkLine::NARROW);
    }
}
