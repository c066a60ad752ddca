<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;
use Plinth\Server\Source\Drawing;
use Symfony\Component\Uid\Uuid;

/** Fits of the drawings that are told of, or about which something is stated that is. */
final readonly class FitsTold implements Teller
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $reports)
    {
    }

    public static function name(): string
    {
        return 'fits';
    }

    public function tell(Telling $about): string
    {
        $fits = [];
        foreach (array_keys($this->drawings($about)) as $id) {
            $key = $about->project->beside(Uuid::fromString($id))->criteria();
            $drawing = $this->entities->find(Drawing::class, $key);
            $fit = $this->entities->find(DrawingFit::class, $key);
            if (null !== $drawing && null !== $fit) {
                $fits[] = $this->reports->of($fit, $drawing);
            }
        }

        return json_encode($fits, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
    }

    /** @return array<string, true> their ids */
    private function drawings(Telling $about): array
    {
        $ids = [];
        foreach ($about->rows as $row) {
            $id = match (true) {
                $row instanceof Drawing, $row instanceof DrawingFit => $row->id(),
                $row instanceof Statement => $row->drawing(),
                default => null,
            };
            if (null !== $id) {
                $ids[$id->toRfc4122()] = true;
            }
        }
        // Of a statement that is gone the drawing still has a fit to be told.
        foreach ($about->gone as [$class, , $values]) {
            if (is_subclass_of($class, Statement::class) && \is_string($values['drawing'] ?? null)) {
                $ids[$values['drawing']] = true;
            }
        }

        return $ids;
    }
}
