<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Plinth\Server\Change\RowKinds;

final readonly class EnclosureRows implements RowKinds
{
    public function rows(): array
    {
        return [FireClass::class, Enclosure::class, EnclosedRoom::class, ClassesTogether::class, EscapeLimit::class];
    }
}
