<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Ink\Reading\Title;

/** Titles as clients are told them. */
final class TitlesTold
{
    /**
     * @param list<Title> $titles
     *
     * @return list<array<string, mixed>>
     */
    public static function of(array $titles): array
    {
        return array_map(self::one(...), $titles);
    }

    /** @return array<string, mixed> */
    public static function one(Title $title): array
    {
        return [
            'words' => $title->words, 'kind' => $title->kind->value, 'storey' => $title->storey, 'level' => $title->level,
            'side' => $title->side, 'box' => $title->box,
        ];
    }
}
