<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** Is told of the elements of an XML file, one after the other. */
interface XmlVisitor
{
    /** An element begins; its attributes are asked of the file. */
    public function begin(Xml $x, string $element): void;

    /** An element ends, with the text that stood last in it. */
    public function end(Xml $x, string $element, string $text): void;
}
