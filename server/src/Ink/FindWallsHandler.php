<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Ink\Walls\ProposedColumn;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Ink\Walls\WallProposals;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;

#[AsMessageHandler]
final readonly class FindWallsHandler
{
    public function __construct(private Findings $findings)
    {
    }

    public function __invoke(FindWalls $message): void
    {
        $this->findings->work(FindingKind::Walls, $message->drawing, $message->basis, static function (Drawing $drawing, DrawingFit $fit, InkOfPage $ink, callable $onProgress): array {
            $found = WallProposals::in($ink->window(...), $drawing->box(), $fit->pixelToMm(), $ink->lightOnDark, $onProgress);
            $pixels = static fn (ProposedWall $w): array => [...$fit->pixelToMm()->toPixel($w->from)->toArray(), ...$fit->pixelToMm()->toPixel($w->to)->toArray()];

            return [
                'walls' => array_map(static fn (ProposedWall $w, int $i): array => [
                    'id' => 'w'.$i, 'from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'thickness' => $w->thickness, 'plusMinusMm' => 2.0 * $w->thicknessSigma, 'offPlusMinusMm' => 2.0 * $w->centreSigma,
                    'confidence' => $w->confidence, 'filling' => $w->filling, 'onPage' => $pixels($w),
                ], $found->walls, array_keys($found->walls)),
                'openings' => array_map(static fn (ProposedOpening $o, int $i): array => [
                    'id' => 'o'.$i, 'wall' => 'w'.$o->wall, 'kind' => $o->kind->value, 'offset' => $o->offset, 'width' => $o->width, 'plusMinusMm' => 2.0 * $o->sigma, 'confidence' => $o->confidence, 'leafAt' => $o->leafAt, 'leafSide' => $o->leafSide,
                ], $found->openings, array_keys($found->openings)),
                'columns' => array_map(static fn (ProposedColumn $c, int $i): array => [
                    'id' => 'c'.$i, 'x' => $c->centre->x, 'y' => $c->centre->y, 'width' => $c->width, 'depth' => $c->depth, 'confidence' => $c->confidence,
                ], $found->columns, array_keys($found->columns)),
            ];
        });
    }
}
