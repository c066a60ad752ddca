<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Facades\FacadeOpenings;
use Plinth\Core\Ink\Facades\ShownOpening;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;

/** Finds the openings that a photograph or a drawn elevation on a side shows. */
final readonly class FindOpenings implements AskedFor
{
    public function __construct(private Findings $findings)
    {
    }

    public static function name(): string
    {
        return 'find-openings';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        $this->findings->refuseWithoutSide($about);

        return $this->findings->basisOf($about, FindingKind::Facade);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $this->findings->work(FindingKind::Facade, $job, $attempt, function (Drawing $drawing, DrawingFit $fit, InkOfPage $ink, callable $onProgress): array {
            $map = $fit->pixelToMm();
            $found = FacadeOpenings::in($ink, $drawing->box(), $map, $this->findings->isPhotograph($drawing), $onProgress);
            $px = static fn (float $x, float $y): array => $map->toPixel(new Point($x, $y))->toArray();

            return ['openings' => array_map(static fn (ShownOpening $o, int $i): array => [
                'id' => 'f'.$i, 'leftMm' => $o->left, 'rightMm' => $o->right, 'sillMm' => $o->sill, 'headMm' => $o->head, 'plusMinusMm' => $o->edgePlusMinus(),
                'confidence' => $o->confidence, 'sure' => $o->isSure(), 'onPage' => [...$px($o->left, $o->sill), ...$px($o->right, $o->head)],
            ], $found, array_keys($found))];
        });
    }
}
