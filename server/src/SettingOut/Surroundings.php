<?php

declare(strict_types=1);

namespace Plinth\Server\SettingOut;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Plan\Model\SettingOut;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Traverse;
use Plinth\Server\Project\Storey;
use Plinth\Server\Site\Boundary;
use Plinth\Server\Site\Legs;

/** Axes of the project, columns and closed boundaries of a storey, as the core takes them. */
final readonly class Surroundings
{
    public function __construct(private EntityManagerInterface $entities, private Legs $legs)
    {
    }

    public function of(Storey $storey): SettingOut
    {
        $axes = array_map(
            static fn (GridAxis $a): array => $a->toCore(),
            $this->entities->getRepository(GridAxis::class)->findBy(['project' => $storey->project()], ['at' => 'ASC']),
        );
        $columns = array_map(
            static fn (Column $c): array => $c->outline(),
            $this->entities->getRepository(Column::class)->findBy(
                ['project' => $storey->project(), 'storey' => $storey->id()],
                ['id' => 'ASC'],
            ),
        );
        $boundaries = [];
        foreach ($this->entities->getRepository(Boundary::class)->findBy(
            ['project' => $storey->project(), 'storey' => $storey->id()],
            ['id' => 'ASC'],
        ) as $boundary) {
            try {
                $boundaries[] = Traverse::closed($this->legs->of($boundary), $boundary->from())->contour->points();
            } catch (UnusableBoundary) {
                continue; // still being typed
            }
        }

        return new SettingOut($axes, $columns, $boundaries);
    }
}
