<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network\Exception;

final class TooMuchToDerive extends \RuntimeException
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
}
