<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Symfony\Component\Uid\Uuid;

/** The fits that a drawing has had, read from the history of changes; any of them can be gone back to by what was stated then. */
final readonly class FitHistory
{
    private const SHAPE = ['model' => true, 'ownFactor' => true, 'statedScale' => true, 'statedPaper' => true];

    public function __construct(private EntityManagerInterface $entities, private Kinds $kinds)
    {
    }

    /** @return list<array{revision: int, title: string, at: string, model: string, plusMinusMmPer10m: float|null, mmPerPixel: float}> latest first */
    public function of(Drawing $drawing): array
    {
        $id = $drawing->id()->toRfc4122();
        $fits = [];
        foreach ($this->changes($drawing, 0) as $change) {
            foreach ($change->touches() as $touch) {
                if (DrawingFit::kind()->name === $touch['type'] && $touch['id'] === $id && null !== $touch['after']) {
                    $m = $touch['after'];
                    $number = static fn (string $key): float => is_numeric($m[$key] ?? null) ? (float) $m[$key] : 0.0;
                    $fits[] = [
                        'revision' => $change->revision(), 'title' => $change->title(), 'at' => $change->at()->format(\DATE_ATOM), 'model' => (string) ($m['model'] ?? ''),
                        'plusMinusMmPer10m' => is_numeric($m['plusMinusMmPer10m'] ?? null) ? (float) $m['plusMinusMmPer10m'] : null,
                        'mmPerPixel' => sqrt(abs($number('m00') * $number('m11') - $number('m01') * $number('m10'))),
                    ];
                }
            }
        }

        return $fits;
    }

    /** Puts all that is stated about a drawing back to what it was at a revision; its fit follows from that. */
    public function goBack(Workspace $workspace, Drawing $drawing, int $revision, string $at): void
    {
        $target = [];
        foreach ($this->changes($drawing, $revision) as $change) {
            foreach ($change->touches() as $touch) {
                $target = array_replace($target, $this->earlier($touch, $drawing));
            }
        }
        if ([] === $target) {
            throw Refusal::conflict('nothing-left', 'Nothing has been stated about this drawing since then.', $at);
        }
        $order = array_flip(array_values($this->kinds->classes));
        uasort($target, static fn (array $a, array $b): int => $order[$a[0]] <=> $order[$b[0]]);
        foreach ($target as [$class, $id, $values]) {
            $row = $workspace->find($class, $id);
            if (null !== $values) {
                null === $row ? $workspace->add($class, $id, $values, $at) : $workspace->set($row, $values, $at);
            }
        }
        foreach (array_reverse($target) as [$class, $id, $values]) {
            $row = $workspace->find($class, $id);
            if (null === $values && null !== $row) {
                $workspace->remove($row, $at);
            }
        }
    }

    /**
     * What a touched row was before, where it belongs to what is stated about the drawing.
     *
     * @param array{type: string, id: string, before: array<string, scalar|null>|null, after: array<string, scalar|null>|null} $touch
     *
     * @return array<string, array{class-string<ProjectRow>, Uuid, array<string, scalar|null>|null}>
     */
    private function earlier(array $touch, Drawing $drawing): array
    {
        $class = $this->kinds->named($touch['type']);
        $id = $drawing->id()->toRfc4122();
        if (Drawing::class === $class && $touch['id'] === $id && null !== $touch['before']) {
            return [Workspace::key($class, $drawing->id()) => [$class, $drawing->id(), array_intersect_key($touch['before'], self::SHAPE)]];
        }
        if (!is_subclass_of($class, Statement::class) || $id !== ($touch['before']['drawing'] ?? $touch['after']['drawing'] ?? null)) {
            return [];
        }

        return [Workspace::key($class, Uuid::fromString($touch['id'])) => [$class, Uuid::fromString($touch['id']), $touch['before']]];
    }

    /** @return list<Change> after the revision, latest first */
    private function changes(Drawing $drawing, int $after): array
    {
        $changes = $this->entities->createQueryBuilder()->select('c')->from(Change::class, 'c')
            ->where('c.project = :project')->andWhere('c.revision > :after')
            ->setParameter('project', $drawing->project(), 'uuid')->setParameter('after', $after)
            ->orderBy('c.revision', 'DESC')->getQuery()->getResult();

        return array_values(array_filter(\is_array($changes) ? $changes : [], static fn (mixed $c): bool => $c instanceof Change));
    }
}
