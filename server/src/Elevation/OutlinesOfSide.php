<?php

declare(strict_types=1);

namespace Plinth\Server\Elevation;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Elevation\SideOpening;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;

/** What was traced on a side, as far as each outline reaches, and by how much it may be off. */
final readonly class OutlinesOfSide
{
    /** px by which a hand picks an edge of a picture off, at two standard deviations; common practice, no source */
    private const HAND_PX = 2.0;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<SideOpening> in the order in which they were traced; with the ± of their edges and of 10 m where that is known */
    public function of(RowId $side): array
    {
        $criteria = ['project' => $side->project];
        $outlines = $this->entities->getRepository(Outline::class)->findBy($criteria + ['side' => $side->id], ['id' => 'ASC']);
        $ids = array_map(static fn (Outline $o): string => $o->id()->toBinary(), $outlines);
        $cornersOf = [];
        foreach ([] === $ids ? [] : $this->entities->getRepository(OutlineCorner::class)->findBy($criteria + ['outline' => $ids]) as $corner) {
            $cornersOf[$corner->outline()->toRfc4122()][] = $corner;
        }
        $traced = [];
        foreach ($outlines as $outline) {
            $corners = $cornersOf[$outline->id()->toRfc4122()] ?? [];
            $places = array_map(static fn (OutlineCorner $c): array => $c->at()->toArray(), $corners);
            if (\count($places) < 3) {
                continue;
            }
            [$u, $v] = [array_column($places, 0), array_column($places, 1)];
            $drawing = $corners[0]->drawing();
            $fit = null === $drawing ? null : $this->entities->find(DrawingFit::class, $outline->beside($drawing)->criteria());
            $map = $fit?->pixelToMm();
            $byHand = null === $map ? null : self::HAND_PX * $map->mmPerPixelAt($map->toPixel(new Point($u[0], $v[0])));
            $traced[] = new SideOpening(
                $outline->id()->toRfc4122(),
                min($u),
                max($u),
                min($v),
                max($v),
                edgePlusMinus: $outline->plusMinusMm() ?? $byHand,
                plusMinusPer10m: $fit?->plusMinusMmPer10m(),
            );
        }

        return $traced;
    }
}
