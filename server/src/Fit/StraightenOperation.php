<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Fitting\Model;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\UuidV7;

/** A photograph straightened by its own lines: how they converge is stated, in the place of what the ink said before. */
final readonly class StraightenOperation implements Operation
{
    public static function name(): string
    {
        return 'straighten';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['drawing']);
        $drawing = $workspace->current(Drawing::class, RowValues::uuid($wanted->get('drawing')), $base, $wanted->at.'/drawing');
        $page = $workspace->get(Page::class, $drawing->page());
        $leaning = $page->leaning();
        if (true !== $leaning?->isSlanted()) {
            throw Refusal::invalid(
                'no-slant',
                'Its lines do not say that it leans: run lines with the grid at all four sides, or state a known rectangle.',
                $wanted->at.'/drawing',
            );
        }
        foreach ($workspace->findBy(GridPick::class, 'drawing', $drawing->id()) as $line) {
            if (Hand::Ink === $line->hand()) {
                [$a, $b] = [$workspace->get(Pick::class, $line->a()), $workspace->get(Pick::class, $line->b())];
                $workspace->remove($line, $wanted->at);
                $workspace->remove($a, $wanted->at);
                $workspace->remove($b, $wanted->at);
            }
        }
        $id = $drawing->id()->toRfc4122();
        foreach ($leaning->lines($drawing->box(), $page->width(), $page->height()) as $line) {
            $ends = [];
            foreach ([$line->a, $line->b] as $at) {
                $pick = new UuidV7();
                $ends[] = $pick->toRfc4122();
                $workspace->add(Pick::class, $pick, ['drawing' => $id, 'x' => $at->x, 'y' => $at->y, 'sigmaPx' => $line->sigmaPx], $wanted->at);
            }
            // By an odd number of quarter turns what runs across the page runs along the drawing's y.
            $axis = $line->runsDown === (1 === $drawing->turns() % 2) ? Axis::X : Axis::Y;
            $workspace->add(GridPick::class, new UuidV7(), [
                'drawing' => $id, 'a' => $ends[0], 'b' => $ends[1], 'axis' => $axis->value, 'bearing' => null, 'hand' => Hand::Ink->value,
            ], $wanted->at);
        }
        $workspace->set($drawing, ['model' => Model::Perspective->value, 'ownFactor' => null], $wanted->at);
    }
}
