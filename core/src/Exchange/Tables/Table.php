<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Tables;

/** Rows under a head: numbers are numbers, and every text is text, whatever it begins with. */
final readonly class Table
{
    /**
     * @param string $name no longer than 31 characters and without []:*?/\ : a sheet of every kind may be called so
     * @param list<string> $head
     * @param list<list<string|int|float|null>> $rows as many values each as the head has
     */
    public function __construct(public string $name, public array $head, public array $rows)
    {
    }
}
