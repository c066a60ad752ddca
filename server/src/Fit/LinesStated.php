<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Fitting\Model;
use Plinth\Core\Ink\Pages\Leaning;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\UuidV7;

/** How the lines of a photograph converge, stated as lines along both axes in the place of what the ink said before. */
final class LinesStated
{
    public static function of(Workspace $workspace, Drawing $drawing, Leaning $leaning, string $at): void
    {
        foreach ($workspace->findBy(GridPick::class, 'drawing', $drawing->id()) as $line) {
            if (Hand::Ink === $line->hand()) {
                [$a, $b] = [$workspace->get(Pick::class, $line->a()), $workspace->get(Pick::class, $line->b())];
                $workspace->remove($line, $at);
                $workspace->remove($a, $at);
                $workspace->remove($b, $at);
            }
        }
        $page = $workspace->get(Page::class, $drawing->page());
        $id = $drawing->id()->toRfc4122();
        foreach ($leaning->lines($drawing->box(), $page->width(), $page->height()) as $line) {
            $ends = [];
            foreach ([$line->a, $line->b] as $end) {
                $pick = new UuidV7();
                $ends[] = $pick->toRfc4122();
                $workspace->add(Pick::class, $pick, ['drawing' => $id, 'x' => $end->x, 'y' => $end->y, 'sigmaPx' => $line->sigmaPx], $at);
            }
            // By an odd number of quarter turns what runs across the page runs along the drawing's y.
            $axis = $line->runsDown === (1 === $drawing->turns() % 2) ? Axis::X : Axis::Y;
            $workspace->add(GridPick::class, new UuidV7(), [
                'drawing' => $id, 'a' => $ends[0], 'b' => $ends[1], 'axis' => $axis->value, 'bearing' => null, 'hand' => Hand::Ink->value,
            ], $at);
        }
        $workspace->set($drawing, ['model' => Model::Perspective->value, 'ownFactor' => null], $at);
    }
}
