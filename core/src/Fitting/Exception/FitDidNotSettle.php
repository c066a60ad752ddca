<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

final class FitDidNotSettle extends \RuntimeException implements FittingException
{
    public static function after(int $rounds): self
    {
        return new self(
            \sprintf(
                'What is stated pulls so far apart that no size fits all of it (%d rounds tried): look for a slip of ten or a wrong unit.',
                $rounds,
            ),
        );
    }

    public function why(): string
    {
        return 'did-not-settle';
    }

    public function at(): string
    {
        return '';
    }
}
