<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One drawing cut out of a page, in page pixels. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['page'])]
#[ORM\Index(fields: ['storey'])]
class Drawing extends ProjectRow
{
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $page;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column(length: 10)]
    private DrawingKind $kind = DrawingKind::Plan;

    #[ORM\Column(name: 'left_px')]
    private float $left = 0.0;

    #[ORM\Column(name: 'top_px')]
    private float $top = 0.0;

    #[ORM\Column]
    private float $width = 0.0;

    #[ORM\Column]
    private float $height = 0.0;

    /** how strongly the picture shows, 0 to 1 */
    #[ORM\Column]
    private float $fade = 1.0;

    public static function type(): RowType
    {
        return RowType::Drawing;
    }

    public function values(): array
    {
        return [
            'page' => $this->page->toRfc4122(), 'storey' => $this->storey->toRfc4122(), 'name' => $this->name, 'kind' => $this->kind->value,
            'left' => $this->left, 'top' => $this->top, 'width' => $this->width, 'height' => $this->height, 'fade' => $this->fade,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->page = $values->id('page');
        $this->storey = $values->id('storey');
        $this->name = $values->name('name');
        $this->kind = $values->choice('kind', DrawingKind::class);
        $this->left = $values->notNegative('left');
        $this->top = $values->notNegative('top');
        $this->width = $values->positive('width');
        $this->height = $values->positive('height');
        $this->fade = max(0.0, min(1.0, $values->number('fade')));
    }

    public function references(): array
    {
        return [[RowType::Page, $this->page, 'page'], [RowType::Storey, $this->storey, 'storey']];
    }

    public function page(): Uuid
    {
        return $this->page;
    }
}
