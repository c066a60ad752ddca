<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\BodiesDocument;

use Plinth\Core\Projection\CutFace;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\ViewLine;

/** Writes what a side or a section shows as data for JSON: places to a hundredth of a millimetre. */
final class ViewWriter
{
    /** @return array{lines: list<array<string, mixed>>, faces: list<array<string, mixed>>} */
    public static function view(DrawnView $view): array
    {
        return ['lines' => array_map(self::line(...), $view->lines), 'faces' => array_map(self::face(...), $view->faces)];
    }

    /** @return array<string, mixed> */
    private static function line(ViewLine $line): array
    {
        return [
            'from' => self::place($line->from), 'to' => self::place($line->to), 'role' => $line->role->value, 'kind' => $line->kind->value,
            'id' => $line->body, 'storey' => $line->storey,
        ];
    }

    /** @return array<string, mixed> */
    private static function face(CutFace $face): array
    {
        return [
            'rings' => array_map(static fn (array $ring): array => array_map(self::place(...), $ring), [$face->outer, ...$face->holes]),
            'kind' => $face->kind->value, 'id' => $face->body, 'storey' => $face->storey,
        ];
    }

    /**
     * @param array{float, float} $at
     *
     * @return array{float, float}
     */
    private static function place(array $at): array
    {
        return [round($at[0], 2), round($at[1], 2)];
    }
}
