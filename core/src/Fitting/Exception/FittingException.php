<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

interface FittingException extends \Throwable
{
    /** A stable code apart from the wording. */
    public function reason(): string;

    /** The observation concerned as list and index, such as `lengths/2`; empty for the whole. */
    public function at(): string;
}
