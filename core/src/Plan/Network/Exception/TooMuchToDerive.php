<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network\Exception;

use Plinth\Core\Fault\Fault;

final class TooMuchToDerive extends \RuntimeException implements Fault
{
    public static function pairs(int $most): self
    {
        return new self(
            \sprintf(
                'Too many lines lie on or across each other here: more than %d pairs. Leave out what is drawn twice, or draw it in parts.',
                $most,
            ),
        );
    }

    public function why(): string
    {
        return 'too-much-to-derive';
    }

    public function at(): string
    {
        return '';
    }
}
