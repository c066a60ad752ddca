<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Server\Project\Storey;
use Symfony\Contracts\Cache\CacheInterface;

/** What is built on a storey as seen from above, kept for as long as its shapes stay. */
final readonly class BuildingOutlines
{
    public function __construct(private PlanKeeper $plans, private DerivedShapes $shapes, private CacheInterface $cache)
    {
    }

    /** @return list<non-empty-list<array{float, float}>> rings round all that belongs together, counter-clockwise */
    public function of(Storey $storey): array
    {
        return $this->cache->get(
            \sprintf(
                'outlines.%s.%s.%s',
                $storey->project()->toRfc4122(),
                $storey->id()->toRfc4122(),
                $this->shapes->version($storey->key()),
            ),
            fn (): array => array_map(
                static fn (BodyOutline $o): array => $o->outer,
                Derivation::of($this->plans->load($storey->key()))->outlines,
            ),
        );
    }
}
