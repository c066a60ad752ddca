<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
use Plinth\Core\Sheets\Model\SheetView as CoreView;
use Symfony\Component\Uid\Uuid;

/** Print sheets of a project as the core knows them, in their order. */
final readonly class Sheets
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<CoreSheet> */
    public function of(Uuid $project): array
    {
        $marks = [];
        foreach ($this->entities->getRepository(ViewMark::class)->findBy(['project' => $project], ['id' => 'ASC']) as $mark) {
            $marks[$mark->view()->toRfc4122()][] = $mark->said();
        }
        $views = [];
        foreach ($this->entities->getRepository(SheetView::class)->findBy(['project' => $project], ['id' => 'ASC']) as $view) {
            $views[$view->sheet()->toRfc4122()][] = $view->withMarks($marks[$view->id()->toRfc4122()] ?? []);
        }

        return array_map(
            static fn (PrintSheet $s): CoreSheet => $s->withViews($views[$s->id()->toRfc4122()] ?? []),
            $this->entities->getRepository(PrintSheet::class)->findBy(['project' => $project], ['order' => 'ASC', 'id' => 'ASC']),
        );
    }

    /**
     * What adds a set that the core has proposed.
     *
     * @param list<CoreSheet> $set
     *
     * @return list<array{id: string, values: array<string, mixed>, views: list<array{id: string, values: array<string, mixed>}>}>
     */
    public static function rows(array $set, string $date, string $owner = '', string $creator = ''): array
    {
        return array_map(static fn (CoreSheet $s, int $i): array => [
            'id' => $s->id,
            'values' => [
                'order' => $i, 'width' => $s->width, 'height' => $s->height, 'part' => $s->part, 'number' => $s->number, 'owner' => $owner,
                'creator' => $creator, 'approved' => '', 'date' => $date,
            ],
            'views' => array_map(static fn (CoreView $v): array => ['id' => $v->id, 'values' => SheetView::valuesOf($v, $s->id)], $s->views),
        ], $set, array_keys($set));
    }
}
