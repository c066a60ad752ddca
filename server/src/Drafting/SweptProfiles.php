<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Sweep as CoreSweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Server\Elevation\Outline;
use Plinth\Server\Elevation\OutlineCorner;
use Plinth\Server\Elevation\OutlineKind;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Symfony\Component\Uid\Uuid;

/** Profiles of a storey as the core takes them along their paths. */
final readonly class SweptProfiles
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<CoreSweep> none of shapes that do not close, or whose path stands on a side that has no line */
    public function of(Storey $storey): array
    {
        $rows = $this->entities->getRepository(Sweep::class)->findBy(['project' => $storey->project(), 'storey' => $storey->id()], ['id' => 'ASC']);

        return array_values(array_filter(array_map($this->swept(...), $rows)));
    }

    private function swept(Sweep $sweep): ?CoreSweep
    {
        $profile = $this->line($sweep, $sweep->profile())?->drawn()->contour();
        if (null === $profile) {
            return null;
        }
        [$left, $bottom, $right, $top] = $profile->bounds();
        [$heldX, $heldY] = $sweep->held();
        [$x, $y] = [$left + $heldX * ($right - $left), $bottom + $heldY * ($top - $bottom)];
        $held = new Contour(array_map(static fn (Point $p): Point => $p->plus(-$x, -$y), $profile->corners), $profile->rises);
        $id = $sweep->id()->toRfc4122();
        [$level, $isInward] = [$sweep->level(), $sweep->isInward()];
        if (null !== $sweep->outline()) {
            $outline = $this->entities->find(Outline::class, $sweep->beside($sweep->outline())->criteria());
            if (null === $outline) {
                return null;
            }
            if (OutlineKind::Roof === $outline->goesRound()) {
                return new CoreSweep($id, $held, SweepAlong::Eaves, of: $outline->id()->toRfc4122(), level: $level, inward: $isInward);
            }
            $corners = $this->entities->getRepository(OutlineCorner::class)->findBy(
                ['project' => $sweep->project(), 'outline' => $outline->id()],
                ['order' => 'ASC', 'id' => 'ASC'],
            );
            $round = array_map(static fn (OutlineCorner $c): Point => $c->at(), $corners);
            $rises = array_map(static fn (OutlineCorner $c): float => $c->rise(), $corners);

            return new CoreSweep($id, $held, SweepAlong::Path, $round, $rises, true, level: $level, inward: $isInward);
        }
        if (null === $sweep->path()) {
            return new CoreSweep($id, $held, SweepAlong::Walls, level: $level, inward: $isInward);
        }
        $path = $this->line($sweep, $sweep->path());
        $side = null === $path?->side() ? null : $this->entities->find(Side::class, $sweep->beside($path->side())->criteria());
        if (null === $path || (null !== $side && !$side->hasLine())) {
            return null;
        }
        $drawn = $path->drawn();

        return new CoreSweep(
            $id,
            $held,
            SweepAlong::Path,
            $drawn->corners,
            $drawn->rises,
            $drawn->closed,
            level: $level,
            inward: $isInward,
            face: $side?->line(),
        );
    }

    private function line(Sweep $sweep, Uuid $id): ?DrawnLine
    {
        return $this->entities->find(DrawnLine::class, $sweep->beside($id)->criteria());
    }
}
