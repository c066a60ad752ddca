<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\Picture;
use Plinth\Core\Ink\Walls\ProposedColumn;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Ink\Walls\WallProposals;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('walls', 'Walls, openings and columns that the ink shows', help: <<<'TEXT'
    Reads {"pixelToMm": [[3 × 3]]}, as `fit` answers it. Answers, in mm and +y up:
      walls     from, to (ends of the centre line), thickness, plusMinus (of the thickness, two standard deviations), confidence
      openings  wall (its index), offset along it, width, kind, confidence
      columns   at, width, depth, degrees (of its width), confidence
    TEXT)]
final class WallsCommand extends PictureCommand
{
    protected function configure(): void
    {
        parent::configure();
        Json::option($this, 'the map from pixels to millimetres');
    }

    protected function answer(Picture $picture, InputInterface $input): array
    {
        $map = self::map(Json::document($input)->object(['pixelToMm']));
        $found = WallProposals::in($picture->page, $picture->box(), $map, static function (float $done): void {})->worthALook();

        return [
            'walls' => array_map(static fn (ProposedWall $w): array => [
                'from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness,
                'plusMinus' => 2.0 * $w->thicknessSigma, 'confidence' => $w->confidence, 'sure' => $w->isSure(),
            ], $found->walls),
            'openings' => array_map(static fn (ProposedOpening $o): array => [
                'wall' => $o->wall, 'offset' => $o->offset, 'width' => $o->width, 'kind' => $o->kind->value,
                'confidence' => $o->confidence, 'sure' => $o->isSure(),
            ], $found->openings),
            'columns' => array_map(static fn (ProposedColumn $c): array => [
                'at' => $c->centre->toArray(),
                'width' => $c->width,
                'depth' => $c->depth,
                'degrees' => rad2deg($c->turn),
                'confidence' => $c->confidence,
            ], $found->columns),
        ];
    }
}
