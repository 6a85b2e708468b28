/**
 * What BCF 3.0 demands of the files that views are sent in: elements, their order, types and required attributes of
 * `visinfo.xsd`, `markup.xsd`, `extensions.xsd` and `version.xsd` (buildingSMART BCF-XML, release 3.0; from memory, without
 * the parts that views do not use).
 */
const schema = (body: string) => `<?xml version="1.0" encoding="UTF-8"?>
<xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" elementFormDefault="qualified">
  <xs:simpleType name="Guid"><xs:restriction base="xs:string">
    <xs:pattern value="[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}"/>
  </xs:restriction></xs:simpleType>
  <xs:simpleType name="NonEmptyOrBlankString"><xs:restriction base="xs:string">
    <xs:pattern value="[\\s\\S]*\\S[\\s\\S]*"/>
  </xs:restriction></xs:simpleType>
  ${body}
</xs:schema>`;

export const VISINFO = schema(`
  <xs:complexType name="Point"><xs:sequence>
    <xs:element name="X" type="xs:double"/><xs:element name="Y" type="xs:double"/><xs:element name="Z" type="xs:double"/>
  </xs:sequence></xs:complexType>
  <xs:simpleType name="FieldOfView"><xs:restriction base="xs:double">
    <xs:minExclusive value="0"/><xs:maxExclusive value="180"/>
  </xs:restriction></xs:simpleType>
  <xs:simpleType name="PositiveDouble"><xs:restriction base="xs:double"><xs:minExclusive value="0"/></xs:restriction></xs:simpleType>
  <xs:complexType name="PerspectiveCamera"><xs:sequence>
    <xs:element name="CameraViewPoint" type="Point"/><xs:element name="CameraDirection" type="Point"/>
    <xs:element name="CameraUpVector" type="Point"/><xs:element name="FieldOfView" type="FieldOfView"/>
    <xs:element name="AspectRatio" type="PositiveDouble"/>
  </xs:sequence></xs:complexType>
  <xs:complexType name="OrthogonalCamera"><xs:sequence>
    <xs:element name="CameraViewPoint" type="Point"/><xs:element name="CameraDirection" type="Point"/>
    <xs:element name="CameraUpVector" type="Point"/><xs:element name="ViewToWorldScale" type="xs:double"/>
    <xs:element name="AspectRatio" type="PositiveDouble"/>
  </xs:sequence></xs:complexType>
  <xs:element name="VisualizationInfo"><xs:complexType>
    <xs:sequence>
      <xs:choice>
        <xs:element name="OrthogonalCamera" type="OrthogonalCamera"/>
        <xs:element name="PerspectiveCamera" type="PerspectiveCamera"/>
      </xs:choice>
      <xs:element name="ClippingPlanes" minOccurs="0"><xs:complexType><xs:sequence>
        <xs:element name="ClippingPlane" minOccurs="0" maxOccurs="unbounded"><xs:complexType><xs:sequence>
          <xs:element name="Location" type="Point"/><xs:element name="Direction" type="Point"/>
        </xs:sequence></xs:complexType></xs:element>
      </xs:sequence></xs:complexType></xs:element>
    </xs:sequence>
    <xs:attribute name="Guid" type="Guid" use="required"/>
  </xs:complexType></xs:element>`);

export const MARKUP = schema(`
  <xs:element name="Markup"><xs:complexType><xs:sequence>
    <xs:element name="Topic"><xs:complexType>
      <xs:sequence>
        <xs:element name="Title" type="NonEmptyOrBlankString"/>
        <xs:element name="Priority" type="NonEmptyOrBlankString" minOccurs="0"/>
        <xs:element name="Index" type="xs:int" minOccurs="0"/>
        <xs:element name="CreationDate" type="xs:dateTime"/>
        <xs:element name="CreationAuthor" type="NonEmptyOrBlankString"/>
        <xs:element name="ModifiedDate" type="xs:dateTime" minOccurs="0"/>
        <xs:element name="ModifiedAuthor" type="NonEmptyOrBlankString" minOccurs="0"/>
        <xs:element name="Description" type="NonEmptyOrBlankString" minOccurs="0"/>
        <xs:element name="Viewpoints" minOccurs="0"><xs:complexType><xs:sequence>
          <xs:element name="ViewPoint" minOccurs="0" maxOccurs="unbounded"><xs:complexType>
            <xs:sequence>
              <xs:element name="Viewpoint" type="NonEmptyOrBlankString" minOccurs="0"/>
              <xs:element name="Snapshot" type="NonEmptyOrBlankString" minOccurs="0"/>
              <xs:element name="Index" type="xs:int" minOccurs="0"/>
            </xs:sequence>
            <xs:attribute name="Guid" type="Guid" use="required"/>
          </xs:complexType></xs:element>
        </xs:sequence></xs:complexType></xs:element>
      </xs:sequence>
      <xs:attribute name="Guid" type="Guid" use="required"/>
      <xs:attribute name="ServerAssignedId" type="NonEmptyOrBlankString"/>
      <xs:attribute name="TopicType" type="NonEmptyOrBlankString" use="required"/>
      <xs:attribute name="TopicStatus" type="NonEmptyOrBlankString" use="required"/>
    </xs:complexType></xs:element>
  </xs:sequence></xs:complexType></xs:element>`);

export const EXTENSIONS = schema(`
  <xs:element name="Extensions"><xs:complexType><xs:sequence>
    <xs:element name="TopicTypes" minOccurs="0"><xs:complexType><xs:sequence>
      <xs:element name="TopicType" type="NonEmptyOrBlankString" minOccurs="0" maxOccurs="unbounded"/>
    </xs:sequence></xs:complexType></xs:element>
    <xs:element name="TopicStatuses" minOccurs="0"><xs:complexType><xs:sequence>
      <xs:element name="TopicStatus" type="NonEmptyOrBlankString" minOccurs="0" maxOccurs="unbounded"/>
    </xs:sequence></xs:complexType></xs:element>
    <xs:element name="Users" minOccurs="0"><xs:complexType><xs:sequence>
      <xs:element name="User" type="NonEmptyOrBlankString" minOccurs="0" maxOccurs="unbounded"/>
    </xs:sequence></xs:complexType></xs:element>
  </xs:sequence></xs:complexType></xs:element>`);

export const VERSION = schema(`
  <xs:element name="Version"><xs:complexType><xs:attribute name="VersionId" type="xs:string" use="required"/></xs:complexType></xs:element>`);
