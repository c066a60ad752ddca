<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Exception\UnusableMapPoints;
use Plinth\Core\Site\Georeference;
use Plinth\Core\Site\MapPoint as CorePoint;
use Plinth\Core\Site\Traverse;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Where a plan lies in a map, by the corners of its boundaries that are known there. */
final readonly class MapReference
{
    public function __construct(private EntityManagerInterface $entities, private Legs $legs)
    {
    }

    /** Null where nothing is known, or what is known does not agree. */
    public function of(Uuid $project): ?Georeference
    {
        try {
            return $this->told($project)[0] ?? null;
        } catch (Refusal|UnusableMapPoints) {
            return null;
        }
    }

    /**
     * @return array{Georeference, array<string, float>}|null and mm by which each point lies off, by its id; null where there are none
     *
     * @throws Refusal|UnusableMapPoints
     */
    public function told(Uuid $project): ?array
    {
        $points = [];
        $references = [];
        foreach ($this->entities->getRepository(MapPoint::class)->findBy(['project' => $project], ['id' => 'ASC']) as $row) {
            $at = $this->place($row);
            if (null !== $at) {
                $points[$row->id()->toRfc4122()] = new CorePoint($at, $row->east(), $row->north(), $row->height());
                $references[$row->reference()] = true;
            }
        }
        if ([] === $points) {
            return null;
        }
        if (\count($references) > 1) {
            throw Refusal::invalid('two-references', \sprintf('Its points are told in %s: give all in one.', implode(' and in ', array_keys($references))), 'reference');
        }
        $boundary = $this->entities->getRepository(Boundary::class)->findBy(['project' => $project], ['id' => 'ASC'], 1)[0] ?? null;
        $reference = Georeference::through((string) array_key_first($references), array_values($points), $boundary?->upDegrees() ?? 0.0);

        return [$reference, array_map($reference->off(...), $points)];
    }

    /** Where it is in the plan; null where its boundary has no such corner any more. */
    private function place(MapPoint $row): ?Point
    {
        $id = $row->boundary();
        if (null === $id) {
            return new Point(0.0, 0.0);
        }
        $boundary = $this->entities->find(Boundary::class, (new RowId($row->project(), $id))->criteria());
        if (null === $boundary) {
            return null;
        }
        $legs = $this->legs->of($boundary);
        try {
            // Adjusted where it closes, as everywhere else.
            $corners = Traverse::closed($legs, $boundary->from())->contour->corners;
        } catch (UnusableBoundary) {
            $corners = Traverse::path($legs, $boundary->from());
        }

        return $corners[$row->corner()] ?? null;
    }
}
