<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
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
}
