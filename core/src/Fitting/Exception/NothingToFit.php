<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

final class NothingToFit extends \DomainException implements FittingException
{
    public static function nothingSaysTheSize(): self
    {
        return new self('Nothing says how large the drawing is: give at least one known length, or two control points.');
    }

    public function reason(): string
    {
        return 'under-determined';
    }

    public function at(): string
    {
        return '';
    }
}
