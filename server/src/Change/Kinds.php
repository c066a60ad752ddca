<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Json\JsonValue;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Every kind of row that a project is made of, in an order in which each names earlier ones only. */
final class Kinds
{
    /** @var array<string, class-string<ProjectRow>> by name */
    public readonly array $classes;
    /**
     * @var array<class-string<ProjectRow>, list<array{class-string<ProjectRow>, Refers}>> who names rows of a class, the latest kinds first
     */
    private readonly array $referrers;

    /** @param iterable<RowKinds> $registered */
    public function __construct(#[AutowireIterator(RowKinds::class)] iterable $registered)
    {
        $all = [];
        foreach ($registered as $kinds) {
            array_push($all, ...$kinds->rows());
        }
        $this->classes = self::inOrder($all);
        $referrers = [];
        foreach (array_reverse($this->classes) as $class) {
            foreach ($class::refers() as $refers) {
                $referrers[$refers->to][] = [$class, $refers];
            }
        }
        $this->referrers = $referrers;
    }

    /** @return class-string<ProjectRow> */
    public function class(JsonValue $name): string
    {
        return $this->classes[$name->word(array_keys($this->classes))];
    }

    /** @return class-string<ProjectRow> of a name that was written by ourselves */
    public function named(string $name): string
    {
        return $this->classes[$name] ?? throw new \LogicException("There are no rows of the kind $name.");
    }

    /**
     * @param class-string<ProjectRow> $class
     *
     * @return list<array{class-string<ProjectRow>, Refers}>
     */
    public function referrers(string $class): array
    {
        return $this->referrers[$class] ?? [];
    }

    /**
     * @param list<class-string<ProjectRow>> $all
     *
     * @return array<string, class-string<ProjectRow>>
     */
    private static function inOrder(array $all): array
    {
        $ordered = [];
        while ([] !== $all) {
            $ready = array_values(
                array_filter(
                    $all,
                    static fn (string $class): bool => [] === array_filter(
                        $class::refers(),
                        static fn (Refers $r): bool => $r->to !== $class && \in_array($r->to, $all, true),
                    ),
                ),
            );
            if ([] === $ready) {
                throw new \LogicException('These rows name each other in a ring: '.implode(', ', $all));
            }
            foreach ($ready as $class) {
                $ordered[$class::kind()->name] = $class;
            }
            $all = array_values(array_diff($all, $ready));
        }

        return $ordered;
    }
}
