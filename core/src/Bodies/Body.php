<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** Something that stands or lies: a closed surface, and of what. Windows and doors of one size share their form. */
final readonly class Body
{
    /**
     * @param string $id of what it was made from; a door has a frame and its leaves by the same one
     * @param Placement|null $placement of its form; null where that lies where it stands
     */
    public function __construct(
        public BodyKind $kind,
        public string $id,
        public string $storey,
        public Mesh $form,
        public ?Placement $placement = null,
    ) {
    }

    /** Where it stands. */
    public function mesh(): Mesh
    {
        return null === $this->placement
            ? $this->form
            : new Mesh(array_map($this->placement->of(...), $this->form->vertices), $this->form->faces, $this->form->smooth);
    }
}
