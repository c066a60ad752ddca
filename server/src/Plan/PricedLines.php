<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Http\Refusal;

/**
 * The lines that a change would add, by storey, as far as a glance at its operations shows them. What is not a number here is
 * refused where it is read.
 *
 * @phpstan-import-type Box from ChangePrice
 */
final class PricedLines
{
    /** @var array<int|string, list<Box>> */
    private array $boxes = [];
    /** @var array<string, array{string, float, float}> nodes of this change: storey and place */
    private array $nodes = [];
    /** @var list<array{string, string}> walls of this change by their nodes */
    private array $walls = [];

    /** @var list<array{string, string}> whole storeys that are copied or moved, and to which */
    private array $copied = [];
    /** @var list<string> storeys that are removed with all that lies on them */
    private array $removed = [];

    /** @return int rows that the operation touches */
    public function add(JsonValue $operation, int $mostPoints): int
    {
        $data = $operation->map();
        $trace = \is_array($data['trace'] ?? null) ? $data['trace'] : null;
        $lay = \is_array($data['lay'] ?? null) ? $data['lay'] : null;
        $values = \is_array($data['values'] ?? null) ? $data['values'] : [];
        if (null !== $trace) {
            return $this->chain($trace, $operation->at, $mostPoints);
        }
        if (null !== $lay) {
            $walls = self::list($lay, 'walls');
            foreach ($walls as $wall) {
                $this->line(self::text($lay, 'storey'), self::pair($wall, 'from'), self::pair($wall, 'to'));
            }

            return 3 * \count($walls) + \count(self::list($lay, 'openings')) + \count(self::list($lay, 'columns'));
        }
        $copy = \is_array($data['copy'] ?? null) ? $data['copy'] : null;
        if (null !== $copy) {
            $this->copied[] = [self::text($copy, 'storey'), self::text($copy, 'to')];

            return 3 * \count(self::list($copy, 'things'));
        }
        $move = \is_array($data['toStorey'] ?? null) ? $data['toStorey'] : null;
        if (null !== $move) {
            $this->copied[] = [self::text($move, 'from'), self::text($move, 'storey')];

            return 3 * \count(self::list($move, 'things'));
        }
        if ('add' === ($data['do'] ?? null)) {
            match ($data['type'] ?? null) {
                'node' => $this->nodes[self::text($data, 'id')] = [
                    self::text($values, 'storey'),
                    self::number($values, 'x'),
                    self::number($values, 'y'),
                ],
                'wall' => $this->walls[] = [self::text($values, 'fromNode'), self::text($values, 'toNode')],
                'divider' => $this->line(
                    self::text($values, 'storey'),
                    [self::number($values, 'x1'), self::number($values, 'y1')],
                    [self::number($values, 'x2'), self::number($values, 'y2')],
                ),
                default => null,
            };
        }

        if ('storey' === ($data['type'] ?? null) && \in_array($data['do'] ?? null, ['remove', 'removeMany'], true)) {
            foreach ([$data['id'] ?? null, ...self::list($data, 'ids')] as $id) {
                if (\is_string($id)) {
                    $this->removed[] = $id;
                }
            }
        }

        return max(1, \count(self::list($data, 'ids')));
    }

    /** @return list<string> storeys that are removed with all that lies on them */
    public function removed(): array
    {
        return $this->removed;
    }

    /** @return list<array{string, string}> whole storeys that are copied or moved, and to which */
    public function copied(): array
    {
        return $this->copied;
    }

    /** @param list<Box> $boxes of lines that come to a storey */
    public function take(string $storey, array $boxes): void
    {
        $this->boxes[$storey] = [...$this->boxes[$storey] ?? [], ...$boxes];
    }

    /** @return array<int|string, list<Box>> by storey, or by whatever stands in its place */
    public function boxes(): array
    {
        foreach ($this->walls as [$from, $to]) {
            if (isset($this->nodes[$from], $this->nodes[$to])) {
                [$storey, $x1, $y1] = $this->nodes[$from];
                [, $x2, $y2] = $this->nodes[$to];
                $this->line($storey, [$x1, $y1], [$x2, $y2]);
            }
        }
        $this->walls = [];

        return $this->boxes;
    }

    /** @param array<mixed> $trace */
    private function chain(array $trace, string $at, int $mostPoints): int
    {
        $points = self::list($trace, 'points');
        if (\count($points) > $mostPoints) {
            throw Refusal::tooLarge(\sprintf('A chain has at most %d points. Trace it in parts.', $mostPoints), $at.'/trace/points');
        }
        $storey = self::text($trace, 'storey');
        for ($i = 1, $n = \count($points); $i < $n; ++$i) {
            $this->line($storey, self::pair($points, $i - 1), self::pair($points, $i));
        }

        return 2 * \count($points);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function line(string $storey, array $a, array $b): void
    {
        $this->boxes[$storey][] = [min($a[0], $b[0]), min($a[1], $b[1]), max($a[0], $b[0]), max($a[1], $b[1])];
    }

    /** @return list<mixed> */
    private static function list(mixed $of, string $key): array
    {
        return \is_array($of) && \is_array($of[$key] ?? null) ? array_values($of[$key]) : [];
    }

    private static function text(mixed $of, string $key): string
    {
        return \is_array($of) && \is_string($of[$key] ?? null) ? $of[$key] : '';
    }

    private static function number(mixed $of, string|int $key): float
    {
        return \is_array($of) && (\is_int($of[$key] ?? null) || \is_float($of[$key] ?? null)) ? (float) $of[$key] : 0.0;
    }

    /** @return array{float, float} */
    private static function pair(mixed $of, string|int $key): array
    {
        $pair = \is_array($of) ? $of[$key] ?? null : null;

        return [self::number($pair, 0), self::number($pair, 1)];
    }
}
