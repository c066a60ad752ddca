<?php

declare(strict_types=1);

namespace Plinth\Server\Building;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\KeptView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\Street;
use Plinth\Server\Elevation\StreetPart;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Side;
use Psr\Cache\CacheItemPoolInterface;

/** What sides and sections show of the building, drawn on from what they showed last. */
final readonly class SeenSides
{
    /** s that a view is kept to be drawn on from */
    private const KEPT_S = 86_400;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private CacheItemPoolInterface $pool)
    {
    }

    /** What is seen from a side, or from those that stand in a row there; of a side that has no line nothing is. */
    public function of(Side $side, Plan $plan, bool $withHidden = false): DrawnView
    {
        $bodies = BuildingBodies::of($plan);
        $parts = $this->parts($side);
        if ([] === $parts) {
            return $this->seen($side, $bodies, $withHidden);
        }

        return Street::of(array_map(function (StreetPart $part) use ($side, $bodies, $withHidden): array {
            $of = $this->access->row(Side::class, $side->project(), $part->side());

            return [$of->hasLine() ? $this->seen($of, $bodies, $withHidden) : new DrawnView([], []), ...$part->stretch()];
        }, $parts));
    }

    /**
     * As it was seen last, with what has changed since drawn anew.
     *
     * @param list<Body> $bodies
     */
    private function seen(Side $side, array $bodies, bool $withHidden): DrawnView
    {
        if ($withHidden) {
            return Projection::of($bodies, $side->looks(), true);
        }
        $looks = hash('xxh128', serialize([$side->project()->toRfc4122(), $side->id()->toRfc4122(), $side->values()]));
        $item = $this->pool->getItem("seen.$looks");
        $before = $item->get();
        $now = $before instanceof KeptView ? $before->again($bodies, $side->looks()) : KeptView::of($bodies, $side->looks());
        $this->pool->save($item->set($now)->expiresAfter(self::KEPT_S));

        return $now->drawn;
    }

    /** @return list<StreetPart> from the left */
    public function parts(Side $side): array
    {
        return $this->entities->getRepository(StreetPart::class)->findBy(
            ['project' => $side->project(), 'street' => $side->id()],
            ['order' => 'ASC', 'id' => 'ASC'],
        );
    }
}
