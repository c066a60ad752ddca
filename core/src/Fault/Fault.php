<?php

declare(strict_types=1);

namespace Plinth\Core\Fault;

/** What the core throws: its message says in words what is wrong and how to mend it. */
interface Fault extends \Throwable
{
    /** A stable code, in words joined by hyphens. */
    public function why(): string;

    /** Where in what was given: a path, a number of a character, or nothing where it is the whole. */
    public function at(): string;
}
