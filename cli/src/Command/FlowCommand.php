<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Picture\Picture;
use Plinth\Cli\Picture\Pictures;
use Plinth\Cli\Picture\Words;
use Plinth\Core\Flow\Flow;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Wall;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('flow', 'From a picture to rooms, with nothing else known', help: <<<'TEXT'
    Reads the drawing’s figures, sizes and squares it by them, straightens a photograph, finds walls and derives rooms. Answers:
      turns               quarter turns, counter-clockwise as seen, that make it readable; null where that is not sure
      model               similar, stretched, sheared or perspective
      pixelToMm           the map, 3 × 3; null where the figures do not tell how large the drawing is
      plusMinusMmPer10m   ± of 10 m in the worst direction
      figuresUsed, figuresHeldOut   text, mm, a and b (px)
      walls, openings, columns, rooms   in mm, +y up; rooms with name, netAreaM2 and polygon
      says                what was not told, and what somebody should look at
    TEXT)]
final class FlowCommand extends PictureCommand
{
    public function __construct(Pictures $pictures, private readonly Words $words)
    {
        parent::__construct($pictures);
    }

    protected function answer(Picture $picture, InputInterface $input): array
    {
        $flow = Flow::of($picture->page, $picture->box(), null, $this->words->in(...));
        $figure = static fn (PageFigure $f): array => [
            'text' => $f->text, 'mm' => $f->mm, 'a' => $f->a->toArray(), 'b' => $f->b->toArray(),
        ];

        return [
            'turns' => $flow->read->turns,
            'model' => $flow->size?->fit->model->value,
            'pixelToMm' => $flow->map?->rows(),
            'plusMinusMmPer10m' => $flow->size?->fit->plusMinusMmPer10m,
            'figuresUsed' => array_map($figure, $flow->size->used ?? []),
            'figuresHeldOut' => array_map($figure, $flow->size->heldOut ?? []),
            'walls' => array_map(static fn (Wall $w): array => [
                'from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness,
            ], $flow->plan->walls ?? []),
            'openings' => array_map(static fn (Opening $o): array => [
                'wall' => (int) array_search($o->wall, array_column($flow->plan->walls ?? [], 'id'), true),
                'offset' => $o->offset, 'width' => $o->width, 'kind' => $o->kind->value,
            ], $flow->plan->openings ?? []),
            'columns' => array_map(static fn (Column $c): array => [
                'at' => $c->centre->toArray(), 'width' => $c->width, 'depth' => $c->depth,
            ], $flow->plan->columns ?? []),
            'rooms' => array_map(static fn (Region $r): array => [
                'name' => $r->room?->name, 'netAreaM2' => $r->netAreaMm2 / 1e6, 'polygon' => $r->polygon,
            ], $flow->derived->regions ?? []),
            'says' => $flow->says,
        ];
    }
}
