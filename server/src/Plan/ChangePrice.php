<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Plan\Network\Crowding;
use Plinth\Core\Plan\Network\Exception\TooMuchToDerive;
use Plinth\Server\Change\Price;
use Plinth\Server\Change\Raw;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/**
 * What a change will cost, read from the request before anything is locked: how many rows it touches, and how many pairs of lines
 * would have to be held against each other.
 *
 * @phpstan-type Box array{float, float, float, float}
 */
final readonly class ChangePrice implements Price
{
    private const MOST_OPERATIONS = 2000;
    private const MOST_ROWS = 12_000;
    /** rows that a wall is copied or removed as, with its nodes and openings */
    private const ROWS_A_WALL = 3;
    private const MOST_POINTS = 1000;
    /** pairs of lines whose boxes touch */
    private const MOST_PAIRS = 60_000;

    public function __construct(private Connection $connection)
    {
    }

    public function check(Uuid $project, array $operations): void
    {
        if (\count($operations) > self::MOST_OPERATIONS) {
            throw Refusal::tooLarge(
                \sprintf('A change holds at most %d operations. Make it in parts.', self::MOST_OPERATIONS),
                'operations',
            );
        }
        $rows = 0;
        $lines = new PricedLines();
        foreach ($operations as $operation) {
            $rows += $lines->add($operation, self::MOST_POINTS);
            if ($rows > self::MOST_ROWS) {
                throw Refusal::tooLarge(\sprintf('A change touches at most %d things. Make it in parts.', self::MOST_ROWS), 'operations');
            }
        }
        foreach ($lines->removed() as $storey) {
            $rows += Uuid::isValid($storey) ? self::ROWS_A_WALL * \count($this->there($project, Uuid::fromString($storey))) : 0;
        }
        foreach ($lines->copied() as [$from, $to]) {
            $boxes = Uuid::isValid($from) ? $this->there($project, Uuid::fromString($from)) : [];
            $rows += self::ROWS_A_WALL * \count($boxes);
            $lines->take($to, $boxes);
        }
        if ($rows > self::MOST_ROWS) {
            throw Refusal::tooLarge(\sprintf('A change touches at most %d things. Make it in parts.', self::MOST_ROWS), 'operations');
        }
        try {
            foreach ($lines->boxes() as $storey => $boxes) {
                $there = Uuid::isValid((string) $storey) ? $this->there($project, Uuid::fromString((string) $storey)) : [];
                Crowding::check($boxes, $there, self::MOST_PAIRS);
            }
        } catch (TooMuchToDerive $e) {
            throw Refusal::tooMuch($e->getMessage(), 'operations');
        }
    }

    /** @return list<Box> of the lines of a storey */
    private function there(Uuid $project, Uuid $storey): array
    {
        $boxes = [];
        foreach ([
            'SELECT x_min, y_min, x_max, y_max FROM wall WHERE project = ? AND storey = ?',
            'SELECT LEAST(x1, x2) - ABS(rise), LEAST(y1, y2) - ABS(rise), GREATEST(x1, x2) + ABS(rise), GREATEST(y1, y2) + ABS(rise) FROM divider WHERE project = ? AND storey = ?',
        ] as $sql) {
            foreach ($this->connection->iterateNumeric($sql, [$project->toBinary(), $storey->toBinary()]) as [$x1, $y1, $x2, $y2]) {
                $boxes[] = [Raw::number($x1), Raw::number($y1), Raw::number($x2), Raw::number($y2)];
            }
        }

        return $boxes;
    }
}
