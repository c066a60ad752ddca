<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Plan\Model\Enclosure as CoreEnclosure;
use Plinth\Core\Plan\Model\EscapeLimit as CoreLimit;
use Plinth\Core\Plan\Model\FireClass as CoreClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Server\Change\ProjectRow;
use Symfony\Component\Uid\Uuid;

/** Reads what a project says of fire as the core's. */
final readonly class ProjectFire
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function of(Uuid $project): FireSafety
    {
        $rooms = [];
        foreach ($this->rows(EnclosedRoom::class, $project) as $row) {
            $rooms[$row->enclosure()->toRfc4122()][] = $row->room()->toRfc4122();
        }

        return new FireSafety(
            array_map(static fn (FireClass $c): CoreClass => $c->ofPlan(), $this->rows(FireClass::class, $project)),
            array_map(
                static fn (Enclosure $e): CoreEnclosure => $e->ofPlan($rooms[$e->id()->toRfc4122()] ?? []),
                $this->rows(Enclosure::class, $project),
            ),
            array_map(static fn (ClassesTogether $t): array => $t->both(), $this->rows(ClassesTogether::class, $project)),
            array_map(static fn (EscapeLimit $l): CoreLimit => $l->ofPlan(), $this->rows(EscapeLimit::class, $project)),
        );
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T> in the order in which they were made
     */
    private function rows(string $class, Uuid $project): array
    {
        return $this->entities->getRepository($class)->findBy(['project' => $project], ['id' => 'ASC']);
    }
}
