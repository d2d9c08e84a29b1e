/** The one thing of the platform that the core uses beyond the language: present in Node, pages and workers alike. */
declare function structuredClone<T>(value: T): T;
