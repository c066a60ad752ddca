<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Plan\BuildUp;
use Symfony\Component\Uid\Uuid;

/** Which of a project's build-ups a wall probably is, by how thick the ink shows it. */
final readonly class BuildUps
{
    /** What drawing and copying leave of a thickness beyond the ink's own ±, mm. */
    private const DRAWN_MM = 12.0;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return array{id: string, name: string, thickness: float}|null the nearest one within what the ink leaves open */
    public function likeliest(Uuid $project, float $thickness, float $plusMinus): ?array
    {
        $best = null;
        $nearest = hypot($plusMinus, self::DRAWN_MM);
        foreach ($this->entities->getRepository(BuildUp::class)->findBy(['project' => $project], ['id' => 'ASC']) as $buildUp) {
            $values = $buildUp->values();
            $off = abs((float) $values['thickness'] - $thickness);
            if ($off <= $nearest) {
                $nearest = $off;
                $best = [
                    'id' => $buildUp->id()->toRfc4122(),
                    'name' => (string) $values['name'],
                    'thickness' => (float) $values['thickness'],
                ];
            }
        }

        return $best;
    }
}
